package rivo.server.catalogue;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/**
 * Who accepted which licence text for the organisation. It is asked once for each text: one that is changed has to be
 * accepted anew, one that comes back does not. Held in memory; safe for any number of threads.
 */
@Component
public class Licences {

    /** Who accepted it and when. */
    record Acceptance(String who, Instant at) {
    }

    private final ChangeWriter writer;
    private final Catalogue catalogue;
    private final LiveEvents events;
    /** By title and the text's SHA-256. */
    private final Map<String, Acceptance> acceptances = new ConcurrentHashMap<>();

    Licences(ChangeWriter writer, Catalogue catalogue, LiveEvents events, JdbcClient db) {
        this.writer = writer;
        this.catalogue = catalogue;
        this.events = events;
        db.sql("select * from licence_acceptances").query((row, n) -> acceptances.put(row.getString("title") + " "
                + row.getString("text_sha256"), new Acceptance(row.getString("who"), Rows.instant(row, "at"))) == null).list();
    }

    /** Null where the text, as it stands, has not been accepted, or where there is none. */
    @Nullable Acceptance of(TitleRecord title) {
        return acceptances.get(title.id() + " " + hash(title.about().licence()));
    }

    /** Whether somebody has to accept a text before the title is assigned. */
    public boolean isMissing(TitleRecord title) {
        return !title.about().licence().isBlank() && of(title) == null;
    }

    /**
     * Accepts the text of a title.
     *
     * @param text what was read
     * @throws ApiException when the title has another text by now
     */
    public void accept(String who, String id, String text) {
        writer.take(context -> {
            TitleRecord title = catalogue.record(id);
            if (title.about().licence().isBlank() || !title.about().licence().equals(text)) {
                throw ApiException.conflict("other-text", title.name() + " has another licence text than the one you read. "
                        + "Nothing was accepted; read it again.");
            }
            Acceptance acceptance = new Acceptance(who, context.now());
            context.db().sql("merge into licence_acceptances (title, text_sha256, who, at) values (?, ?, ?, ?)")
                    .params(id, hash(text), who, Rows.at(context.now())).update();
            context.journal(who, "licence-accepted", "title:" + id, null, null, text);
            context.afterwards(() -> {
                acceptances.put(id + " " + hash(text), acceptance);
                events.changed(Topics.ESTATE);
            });
            return acceptance;
        });
    }

    private static String hash(String text) {
        return HexFormat.of().formatHex(Contents.sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
    }
}
