package rivo.core.resolve;

import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Title;

/**
 * What one title comes to for every unit: few decisions, each with the units that it stands for. Units without an
 * outcome are in none. Immutable.
 *
 * @param parts no unit is in two
 */
public record TitleOutcomes(Title title, List<DecidedUnits> parts) {

    public TitleOutcomes {
        parts = List.copyOf(parts);
    }

    /** The units with this outcome. */
    public UnitSet with(Outcome outcome) {
        return union(parts.stream().filter(part -> part.decision().outcome() == outcome));
    }

    /** The units with any outcome. */
    public UnitSet decided() {
        return union(parts.stream());
    }

    private UnitSet union(Stream<DecidedUnits> some) {
        return UnitSet.union(title.scope(), some.map(DecidedUnits::units).toList());
    }

    /** What it comes to for this unit; null when it has no outcome. Costs a probe for each part. */
    public @Nullable Decision at(int unit) {
        for (DecidedUnits part : parts) {
            if (part.units().contains(unit)) {
                return part.decision();
            }
        }
        return null;
    }
}
