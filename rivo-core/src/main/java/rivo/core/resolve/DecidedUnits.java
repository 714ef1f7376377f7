package rivo.core.resolve;

import java.util.Objects;
import rivo.core.audience.UnitSet;

/** One decision about a title, and the units that it stands for. @param units not empty */
public record DecidedUnits(Decision decision, UnitSet units) {

    public DecidedUnits {
        Objects.requireNonNull(decision);
        Objects.requireNonNull(units);
    }
}
