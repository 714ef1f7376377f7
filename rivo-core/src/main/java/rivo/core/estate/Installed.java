package rivo.core.estate;

import org.jspecify.annotations.Nullable;

/** One entry of a device's own list of installed software, as the device reports it. */
public record Installed(@Nullable String name, @Nullable String publisher, @Nullable String version) {
}
