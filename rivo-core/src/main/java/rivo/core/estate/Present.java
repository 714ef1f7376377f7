package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A title of the catalogue that a device found on itself by its presence check.
 *
 * @param version null when the device cannot tell; such a one satisfies no lowest version
 */
public record Present(String title, @Nullable Version version) {

    public Present {
        Objects.requireNonNull(title);
    }
}
