package rivo.server.estate;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Estate;

/** What a command has at hand on its way. Used by the writer's thread only, and only while the command runs. */
public final class ChangeContext {

    private final JdbcClient db;
    private final JdbcTemplate batches;
    private final Instant now;
    private Estate estate;
    private final List<Runnable> afterwards = new ArrayList<>();

    ChangeContext(JdbcClient db, JdbcTemplate batches, Instant now, Estate estate) {
        this.db = db;
        this.batches = batches;
        this.now = now;
        this.estate = estate;
    }

    public JdbcClient db() {
        return db;
    }

    /** Carries out one statement for many rows. */
    public void batch(String sql, List<Object[]> rows) {
        if (!rows.isEmpty()) {
            batches.batchUpdate(sql, rows);
        }
    }

    /** The instant of this change. */
    public Instant now() {
        return now;
    }

    /** The estate as it is, with what this command has changed so far. */
    public Estate estate() {
        return estate;
    }

    /** Says how the estate is once this command is on disk. */
    public void becomes(Estate next) {
        estate = next;
    }

    /** Done after the change is on disk and in the working estate: memory besides the estate, and events. */
    public void afterwards(Runnable what) {
        afterwards.add(what);
    }

    List<Runnable> afterwards() {
        return afterwards;
    }

    /**
     * Appends to the journal.
     *
     * @param who an account, or {@code device NAME}, or {@code directory}
     * @param before null when there was nothing
     * @param after null when there is nothing any more
     */
    public void journal(String who, String kind, String subject, @Nullable String why, @Nullable Object before,
            @Nullable Object after) {
        db.sql("insert into journal (at, who, kind, subject, why, before_value, after_value) "
                + "values (?, ?, ?, ?, ?, ?, ?)")
                .params(Rows.at(now), who, kind, subject, why, before == null ? null : Json.write(before),
                        after == null ? null : Json.write(after))
                .update();
    }
}
