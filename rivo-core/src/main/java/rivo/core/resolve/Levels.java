package rivo.core.resolve;

import java.util.List;

/** Where each level of a ladder ends, side by side in a row of numbers. Immutable. */
final class Levels {

    private final int[] ends;

    private Levels(int[] ends) {
        this.ends = ends;
    }

    /** @param ladder the strongest first */
    static Levels of(List<RankedPair> ladder) {
        int[] ends = new int[ladder.size()];
        for (int i = ends.length - 1; i >= 0; i--) {
            boolean last = i == ends.length - 1 || !ladder.get(i).isLevelWith(ladder.get(i + 1));
            ends[i] = last ? i + 1 : ends[i + 1];
        }
        return new Levels(ends);
    }

    /** The place after the last ranked pair that is level with the one at this place. */
    int end(int place) {
        return ends[place];
    }
}
