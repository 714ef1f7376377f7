package rivo.core.rehearse;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.UnitSet;
import rivo.core.resolve.Decision;

/**
 * What changes alike for many units of one title.
 *
 * @param before null when there was no outcome
 * @param after null when there is none any more
 * @param units not empty; positions in the estate after the change, but for units that it no longer has
 */
public record Difference(Effect effect, @Nullable Decision before, @Nullable Decision after, UnitSet units) {

    public Difference {
        Objects.requireNonNull(effect);
        Objects.requireNonNull(units);
    }

    static Difference of(@Nullable Decision before, @Nullable Decision after, UnitSet units) {
        return new Difference(Effect.of(before, after), before, after, units);
    }
}
