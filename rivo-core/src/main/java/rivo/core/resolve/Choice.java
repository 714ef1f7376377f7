package rivo.core.resolve;

import java.util.Objects;
import rivo.core.estate.Release;
import rivo.core.estate.Variant;

/** The release that a unit gets, and the variant of it that fits its device (section 5). */
public record Choice(Release release, Variant variant) {

    public Choice {
        Objects.requireNonNull(release);
        Objects.requireNonNull(variant);
    }
}
