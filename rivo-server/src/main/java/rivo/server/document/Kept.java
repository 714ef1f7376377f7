package rivo.server.document;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A document as it stands.
 *
 * @param revision 1 for a new one, and one more with every edit
 * @param changedBy an account
 * @param change the number of the published change that made it what it is; null where it was edited without a draft
 */
public record Kept<D>(D document, long revision, String changedBy, Instant changedAt, @Nullable Long change) {
}
