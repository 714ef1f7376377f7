package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Somebody took an offer.
 *
 * @param user for a title of scope user, whose profile it is for; else null
 */
public record Request(String device, String title, @Nullable String user) {

    public Request {
        Objects.requireNonNull(device);
        Objects.requireNonNull(title);
    }
}
