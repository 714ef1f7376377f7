package rivo.server.catalogue.title;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A title as it stands, with who changed it last. @param revision from 1, one more with each edit */
public record KeptTitle(TitleRecord record, long revision, @Nullable String changedBy, @Nullable Instant changedAt) {
}
