package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One build of a release.
 *
 * @param fits a rule that the device has to satisfy; null when it fits every device
 */
public record Variant(String id, @Nullable String fits) {

    public Variant {
        Objects.requireNonNull(id);
    }
}
