package rivo.server.catalogue.trust;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.formats.installer.FileSignature;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;
import tools.jackson.core.type.TypeReference;

/** What is known of the signatures of contents, by their SHA-256. Safe for any number of threads. */
@Component
public class ContentSignatures {

    private static final int LONGEST_REASON = 2_000;

    /** By the content's SHA-256; a content that was never read is not there. */
    public static final SnapshotPart<Map<String, KeptSignature>> PART = new SnapshotPart<>() {
        @Override
        public Map<String, KeptSignature> read(JdbcClient db) {
            Map<String, KeptSignature> read = new HashMap<>();
            db.sql("select sha256, signature from content_signatures").query(row -> {
                read.put(row.getString("sha256"), Json.read(row.getString("signature"), new TypeReference<>() {
                }));
            });
            return Map.copyOf(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;

    ContentSignatures(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    /** Keeps what was found; what somebody has said of the very same content stays. */
    public void keep(String sha256, FileSignature found) {
        writer.take(context -> {
            Map<String, KeptSignature> all = new HashMap<>(context.get(PART));
            KeptSignature before = all.get(sha256);
            KeptSignature after = KeptSignature.of(found).despite(before == null ? null : before.despite());
            if (after.equals(before)) {
                return sha256;
            }
            all.put(sha256, after);
            context.becomes(PART, Map.copyOf(all));
            write(context.db(), sha256, after);
            return sha256;
        });
    }

    /**
     * Says why a content shall be used although it was changed after it was signed.
     *
     * @throws ApiException when nothing is wrong with it, or no reason is given
     */
    public void use(String who, String sha256, @Nullable String why) {
        if (why == null || why.isBlank() || why.length() > LONGEST_REASON) {
            throw ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "reason-missing", "Say in 1 to " + LONGEST_REASON
                    + " characters why it shall be used all the same.");
        }
        writer.take(context -> {
            Map<String, KeptSignature> all = new HashMap<>(context.get(PART));
            KeptSignature before = all.get(sha256);
            if (before == null || before.state() != FileSignature.State.CHANGED) {
                throw ApiException.conflict("not-changed", "Nothing was found wrong with the signature of this file.");
            }
            KeptSignature after = before.despite(new KeptSignature.Despite(who, context.now(), why.strip()));
            all.put(sha256, after);
            context.becomes(PART, Map.copyOf(all));
            write(context.db(), sha256, after);
            context.journal(who, "changed-file-accepted", "content:" + sha256, why.strip(), null, before.problem());
            context.afterwards(() -> events.changed(List.of(Topics.TITLES)));
            return sha256;
        });
    }

    private static void write(JdbcClient db, String sha256, KeptSignature signature) {
        db.sql("merge into content_signatures (sha256, signature) values (?, ?)").params(sha256, Json.write(signature)).update();
    }
}
