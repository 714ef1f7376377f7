package rivo.core.resolve;

import java.util.Objects;
import rivo.core.audience.Positions;

/**
 * What is the same for many units.
 *
 * @param units not empty
 */
public record Share<T>(T what, Positions units) {

    public Share {
        Objects.requireNonNull(what);
        Objects.requireNonNull(units);
    }
}
