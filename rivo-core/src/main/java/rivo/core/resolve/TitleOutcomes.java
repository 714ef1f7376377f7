package rivo.core.resolve;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.estate.Title;

/**
 * What one title comes to for every unit: few decisions, each with the units that it stands for. Units without an
 * outcome are in none. Immutable.
 *
 * @param shares no unit is in two
 */
public record TitleOutcomes(Title title, List<UnitsWith<Decision>> shares) {

    public TitleOutcomes {
        shares = List.copyOf(shares);
    }

    /** The units with this outcome. */
    public Positions with(Outcome outcome) {
        return Positions.union(shares.stream().filter(s -> s.what().outcome() == outcome).map(UnitsWith::units).toList());
    }

    /** What it comes to for this unit; null when it has no outcome. Costs a probe for each share. */
    public @Nullable Decision at(int unit) {
        for (UnitsWith<Decision> share : shares) {
            if (share.units().contains(unit)) {
                return share.what();
            }
        }
        return null;
    }
}
