package rivo.core.resolve;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * What the turn of a share may decide, and what it looks at, by the places of titles. Immutable.
 *
 * @param decides its title and, where that is required, all that it may come to need, but for {@linkplain FamilyUnits#isUndisputed undisputed} titles
 * @param looksAt these, and those that may stand against one of these
 * @param besides looksAt without decides: of these it looks at whether they stand
 * @param undisputed what it may come to need besides, which is looked after beside the turns
 */
record TurnReach(int[] decides, int[] looksAt, int[] besides, int[] undisputed) {

    private static final Family.LocalNeed[] NO_NEEDS = {};

    /** For each share. */
    static TurnReach[] of(FamilyUnits units) {
        Turns turns = units.turns();
        Map<Integer, TurnReach> byRelease = new HashMap<>();
        Map<Integer, TurnReach> byTitle = new HashMap<>();
        TurnReach[] all = new TurnReach[turns.size()];
        for (int s = 0; s < all.length; s++) {
            Turns.Share share = turns.share(s);
            all[s] = share.base().outcome() == Outcome.REQUIRED
                    ? byRelease.computeIfAbsent(share.release(), release -> of(share.title(), units.family().needs(release), units))
                    : byTitle.computeIfAbsent(share.title(), title -> of(title, NO_NEEDS, units));
        }
        return all;
    }

    private static TurnReach of(int title, Family.LocalNeed[] needs, FamilyUnits units) {
        BitSet all = new BitSet();
        all.set(title);
        for (Family.LocalNeed need : needs) {
            if (need.title() >= 0) {
                all.or(units.family().decidedWith(need.title()));
            }
        }
        IntPredicate isUndisputed = units::isUndisputed;
        int[] decides = all.stream().filter(isUndisputed.negate()).toArray();
        int[] besides = Arrays.stream(decides).flatMap(one -> Arrays.stream(units.family().neighbours(one))).distinct()
                .filter(other -> Arrays.binarySearch(decides, other) < 0).toArray();
        int[] looksAt = IntStream.concat(Arrays.stream(decides), Arrays.stream(besides)).toArray();
        return new TurnReach(decides, looksAt, besides, all.stream().filter(isUndisputed).toArray());
    }
}
