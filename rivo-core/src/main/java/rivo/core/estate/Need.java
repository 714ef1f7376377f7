package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A release cannot be without another title.
 *
 * @param min the lowest version that will do; null for any
 */
public record Need(String title, @Nullable Version min) {

    public Need {
        Objects.requireNonNull(title);
    }

    /** Whether this version will do; an unknown one, null, satisfies no lowest version. */
    public boolean isMetBy(@Nullable Version version) {
        return min == null || version != null && version.compareTo(min) >= 0;
    }
}
