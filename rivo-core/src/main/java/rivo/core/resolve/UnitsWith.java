package rivo.core.resolve;

import java.util.Objects;
import rivo.core.audience.Positions;

/**
 * What is the same for many units.
 *
 * @param units not empty
 */
public record UnitsWith<T>(T what, Positions units) {

    public UnitsWith {
        Objects.requireNonNull(what);
        Objects.requireNonNull(units);
    }
}
