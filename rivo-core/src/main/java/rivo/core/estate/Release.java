package rivo.core.estate;

import java.util.List;
import java.util.Objects;

/**
 * One version of a title.
 *
 * @param needs in the order in which they are looked at
 * @param variants in the order in which a device tries them
 */
public record Release(Version version, ReleaseState state, List<Need> needs, List<Replacement> replaces,
        List<Variant> variants) {

    public Release {
        Objects.requireNonNull(version);
        Objects.requireNonNull(state);
        needs = List.copyOf(needs);
        replaces = List.copyOf(replaces);
        variants = List.copyOf(variants);
    }

    /** An offered one without relations. */
    public static Release of(Version version, List<Variant> variants) {
        return new Release(version, ReleaseState.OFFERED, List.of(), List.of(), variants);
    }

    public boolean isOffered() {
        return state == ReleaseState.OFFERED;
    }

    public boolean replaces(String title) {
        for (Replacement replacement : replaces) {
            if (replacement.title().equals(title)) {
                return true;
            }
        }
        return false;
    }

    /** By the version alone, which is enough to tell the releases of a title apart, and quick. */
    @Override
    public int hashCode() {
        return version.hashCode();
    }
}
