package rivo.server.catalogue.licence;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/**
 * Who accepted which licence text for the organisation. It is asked once for each text: one that is changed has to be
 * accepted anew, one that comes back does not. Safe for any number of threads.
 */
@Component
public class Licences {

    /** Who accepted it and when. */
    public record Acceptance(String who, Instant at) {
    }

    /** By title and the text's SHA-256. */
    public static final SnapshotPart<Map<String, Acceptance>> PART = new SnapshotPart<>() {
        @Override
        public Map<String, Acceptance> read(JdbcClient db) {
            Map<String, Acceptance> read = new HashMap<>();
            db.sql("select * from licence_acceptances").query(row -> {
                read.put(key(row.getString("title"), row.getString("text_sha256")),
                        new Acceptance(row.getString("who"), Rows.instant(row, "at")));
            });
            return Map.copyOf(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;

    Licences(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    private static String key(String title, String sha256) {
        return title + " " + sha256;
    }

    /** Null where the text, as it stands, has not been accepted, or where there is none. */
    public static @Nullable Acceptance of(Snapshot snapshot, TitleRecord title) {
        return snapshot.get(PART).get(key(title.id(), hash(title.about().licence())));
    }

    /** Whether somebody has to accept a text before the title is assigned. */
    public static boolean isMissing(Snapshot snapshot, TitleRecord title) {
        return !title.about().licence().isBlank() && of(snapshot, title) == null;
    }

    /**
     * Accepts the text of a title.
     *
     * @param text what was read
     * @throws ApiException when the title has another text by now
     */
    public void accept(String who, String id, String text) {
        writer.take(context -> {
            context.becomes(accepted(context.snapshot(), id, text, who, context.now()));
            write(context, who, id, text);
            context.afterwards(() -> events.changed(Topics.titles(List.of(id))));
            return id;
        });
    }

    /**
     * The snapshot with the text accepted. Nothing is written.
     *
     * @throws ApiException when the title has another text by now
     */
    public static Snapshot accepted(Snapshot before, String id, String text, String who, Instant at) {
        TitleRecord title = before.get(Titles.PART).record(id);
        if (title.about().licence().isBlank() || !title.about().licence().equals(text)) {
            throw ApiException.conflict("other-text", title.name() + " has another licence text than the one you read. "
                    + "Nothing was accepted; read it again.");
        }
        Map<String, Acceptance> next = new HashMap<>(before.get(PART));
        next.put(key(id, hash(text)), new Acceptance(who, at));
        return before.with(PART, Map.copyOf(next));
    }

    /** Writes the row alone. */
    public static void write(ChangeContext context, String who, String id, String text) {
        context.db().sql("merge into licence_acceptances (title, text_sha256, who, at) values (?, ?, ?, ?)")
                .params(id, hash(text), who, Rows.at(context.now())).update();
        context.journal(who, "licence-accepted", "title:" + id, null, null, text);
    }

    /** What is accepted is known by: the SHA-256 of the text, in lower-case hexadecimal digits. */
    public static String hash(String text) {
        return HexFormat.of().formatHex(Contents.sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
    }
}
