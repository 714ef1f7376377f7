package rivo.core.plan;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Version;

/**
 * One thing a device has to bring about.
 *
 * @param user the id of the person in whose profile; empty for the whole device
 * @param version the release to put on; null for a removal
 * @param variant the variant of it; null for a removal
 * @param assignment the one that decided it; null for what nobody assigned
 * @param why the reason it stands where it stands in the plan, in words
 */
public record Action(Kind kind, String title, String user, @Nullable Version version, @Nullable String variant,
        @Nullable Assignment assignment, String why) {

    /** Puts on or takes off. */
    public enum Kind {
        INSTALL, REMOVE
    }

    public Action {
        Objects.requireNonNull(kind);
        Objects.requireNonNull(title);
        Objects.requireNonNull(user);
        Objects.requireNonNull(why);
        if ((version == null) != (kind == Kind.REMOVE) || (variant == null) != (version == null)) {
            throw new IllegalArgumentException("a version and a variant are given for an install, and only for it");
        }
    }
}
