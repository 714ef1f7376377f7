package rivo.server.directory;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Whether the directory can be followed.
 *
 * @param kind {@code unread} before the first scan, {@code following}, {@code away} when it could not be read,
 *     {@code held} when a scan would have removed so much that somebody has to agree first
 * @param sentence what is the case and, when something is wrong, what to do
 * @param since when it became so
 * @param lastScan when it was last read whole; null when never
 */
public record DirectoryState(
        @Schema(allowableValues = {"unread", "following", "away", "held"}) String kind, String sentence,
        Instant since, @Nullable Instant lastScan) {

    DirectoryState to(String newKind, String newSentence, Instant now, @Nullable Instant scanned) {
        boolean same = kind.equals(newKind);
        return new DirectoryState(newKind, newSentence, same ? since : now, scanned == null ? lastScan : scanned);
    }
}
