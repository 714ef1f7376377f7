package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A title of the catalogue that a device found on itself by its presence check.
 *
 * @param version null when the device cannot tell; such a one satisfies no lowest version
 * @param user for a title of scope user, in whose profile; else null
 * @param by the id of the assignment under which it was put on; null when nobody knows
 */
public record Present(String title, @Nullable Version version, @Nullable String user, @Nullable String by) {

    public Present {
        Objects.requireNonNull(title);
    }

    public static Present of(String title, @Nullable Version version) {
        return new Present(title, version, null, null);
    }
}
