package rivo.server.mirror;

import org.jspecify.annotations.Nullable;

/**
 * A caching web server near some devices.
 *
 * @param address where devices reach it, {@code http://mirror.example:8090}, without a slash at the end
 * @param fits a rule: the devices that ask it; null for all
 */
public record Mirror(String id, String name, String address, @Nullable String fits) {

    public Mirror {
        id = id == null ? "" : id;
        name = name == null ? "" : name.strip();
        address = address == null ? "" : address.strip().replaceAll("/+$", "");
        fits = fits == null || fits.isBlank() ? null : fits.strip();
    }
}
