package rivo.server.reach;

import rivo.core.audience.Audiences;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;

/** How many units of a part of the fleet have which outcome; {@code none} have none. For a title per person these are people on devices. */
public record OutcomeCounts(int required, int uninstall, int contested, int unfit, int none) {

    /** Of the units on the devices at {@code from}, included, to {@code to}, excluded. */
    static OutcomeCounts in(Audiences audiences, TitleOutcomes outcomes, int from, int to) {
        int[] counts = new int[Outcome.values().length];
        int none = audiences.unitsOn(outcomes.title().scope(), from, to);
        for (DecidedUnits part : outcomes.parts()) {
            int here = audiences.countOn(part.units(), from, to);
            counts[part.decision().outcome().ordinal()] += here;
            none -= here;
        }
        return new OutcomeCounts(counts[Outcome.REQUIRED.ordinal()], counts[Outcome.UNINSTALL.ordinal()],
                counts[Outcome.CONTESTED.ordinal()], counts[Outcome.UNFIT.ordinal()], none);
    }
}
