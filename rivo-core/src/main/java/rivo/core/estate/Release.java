package rivo.core.estate;

import java.util.List;
import java.util.Objects;

/**
 * One version of a title.
 *
 * @param variants the ids of its variants, in the order in which a device tries them
 */
public record Release(Version version, ReleaseState state, List<String> variants) {

    public Release {
        Objects.requireNonNull(version);
        Objects.requireNonNull(state);
        variants = List.copyOf(variants);
    }
}
