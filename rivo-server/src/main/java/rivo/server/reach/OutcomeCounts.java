package rivo.server.reach;

import rivo.core.audience.Audiences;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;

/**
 * How many units of a part of the fleet have which outcome, one number for each {@link Outcome} under its word; {@code none} have none. They
 * add up to all of them. For a title per person these are people on devices.
 */
public record OutcomeCounts(int required, int available, int uninstall, int contested, int later, int unfit, int blocked, int replaced,
        int displaced, int waiting, int none) {

    /** Of the units on the devices at {@code from}, included, to {@code to}, excluded. */
    static OutcomeCounts in(Audiences audiences, TitleOutcomes outcomes, int from, int to) {
        int[] counts = new int[Outcome.values().length];
        int none = audiences.unitsOn(outcomes.title().scope(), from, to);
        for (DecidedUnits part : outcomes.parts()) {
            int here = audiences.countOn(part.units(), from, to);
            counts[part.decision().outcome().ordinal()] += here;
            none -= here;
        }
        return new OutcomeCounts(of(counts, Outcome.REQUIRED), of(counts, Outcome.AVAILABLE), of(counts, Outcome.UNINSTALL),
                of(counts, Outcome.CONTESTED), of(counts, Outcome.LATER), of(counts, Outcome.UNFIT), of(counts, Outcome.BLOCKED),
                of(counts, Outcome.REPLACED), of(counts, Outcome.DISPLACED), of(counts, Outcome.WAITING), none);
    }

    private static int of(int[] counts, Outcome outcome) {
        return counts[outcome.ordinal()];
    }
}
