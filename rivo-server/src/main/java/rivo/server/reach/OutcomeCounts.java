package rivo.server.reach;

import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;
import rivo.core.resolve.UnitsWith;

/** How many devices of a part of the fleet have which outcome; {@code none} have none. */
public record OutcomeCounts(int required, int uninstall, int contested, int unfit, int none) {

    /** Of the devices at {@code from}, included, to {@code to}, excluded. */
    static OutcomeCounts in(TitleOutcomes outcomes, int from, int to) {
        int[] counts = new int[Outcome.values().length];
        int none = to - from;
        for (UnitsWith<Decision> share : outcomes.shares()) {
            int here = share.units().countIn(from, to);
            counts[share.what().outcome().ordinal()] += here;
            none -= here;
        }
        return new OutcomeCounts(counts[Outcome.REQUIRED.ordinal()], counts[Outcome.UNINSTALL.ordinal()],
                counts[Outcome.CONTESTED.ordinal()], counts[Outcome.UNFIT.ordinal()], none);
    }
}
