package rivo.server.estate;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Estate;

/** What a command has at hand on its way. Used by the writer's thread only, and only while the command runs. */
public final class ChangeContext {

    /** As exact as H2 keeps instants: memory and disk hold the same. */
    public static final ChronoUnit ON_DISK = ChronoUnit.MICROS;

    /** What a command brings to be written with what others bring. */
    record Brought<T>(Gathered<T> to, T what) {
    }

    private final Supplier<JdbcClient> db;
    private final JdbcTemplate batches;
    private final Instant now;
    private Snapshot snapshot;
    private final List<Brought<?>> brought = new ArrayList<>();
    private final List<Runnable> afterwards = new ArrayList<>();

    /** @param db asked each time before anything is read or written */
    ChangeContext(Supplier<JdbcClient> db, JdbcTemplate batches, Instant now, Snapshot snapshot) {
        this.db = db;
        this.batches = batches;
        this.now = now;
        this.snapshot = snapshot;
    }

    /** By which alone a command reads and writes: one that fails is taken back to where it first asked for it. */
    public JdbcClient db() {
        return db.get();
    }

    /** Carries out one statement for many rows. */
    public void batch(String sql, List<Object[]> rows) {
        if (!rows.isEmpty()) {
            // As if it were asked: what is written now can be taken back.
            db();
            batches.batchUpdate(sql, rows);
        }
    }

    /** Has it written together with what the commands before and after this one bring; where it is written no command reads. */
    public <T> void gather(Gathered<T> to, T what) {
        brought.add(new Brought<>(to, what));
    }

    List<Brought<?>> brought() {
        return brought;
    }

    /** The instant of this change. */
    public Instant now() {
        return now;
    }

    /** Everything as it is, with what this command and those before it in this transaction have changed so far. */
    public Snapshot snapshot() {
        return snapshot;
    }

    public Estate estate() {
        return snapshot.estate();
    }

    public <T> T get(SnapshotPart<T> part) {
        return snapshot.get(part);
    }

    /** Says how the estate is once this command is on disk. */
    public void becomes(Estate next) {
        snapshot = snapshot.with(next);
    }

    /** Says what a part holds once this command is on disk. */
    public <T> void becomes(SnapshotPart<T> part, T value) {
        snapshot = snapshot.with(part, value);
    }

    /** Says how everything is once this command is on disk. */
    public void becomes(Snapshot next) {
        snapshot = next;
    }

    /** Done after the change is on disk and in the current snapshot: events. */
    public void afterwards(Runnable what) {
        afterwards.add(what);
    }

    List<Runnable> afterwards() {
        return afterwards;
    }

    /**
     * Appends to the journal: the whole of what is new or has gone, and of what is both before and after the difference alone.
     *
     * @param who an account, or {@code device NAME}, or {@code directory}
     * @param before null when there was nothing
     * @param after null when there is nothing any more
     */
    public void journal(String who, String kind, String subject, @Nullable String why, @Nullable Object before,
            @Nullable Object after) {
        JournalDifference difference = before == null || after == null ? null
                : JournalDifference.between(Json.tree(before), Json.tree(after));
        db().sql("insert into journal (at, who, kind, subject, why, before_value, after_value) "
                + "values (?, ?, ?, ?, ?, ?, ?)")
                .params(Rows.at(now), who, kind, subject, why, text(difference == null ? before : difference.before()),
                        text(difference == null ? after : difference.after()))
                .update();
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : Json.write(value);
    }
}
