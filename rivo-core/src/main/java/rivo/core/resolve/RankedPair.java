package rivo.core.resolve;

import java.util.Comparator;
import rivo.core.audience.Audiences;
import rivo.core.audience.Pair;
import rivo.core.estate.Assignment;

/** A pair with its rank on the ladder. */
public record RankedPair(Pair pair, Rank rank) {

    /** The stronger first; of level ones the stronger intent, then the older. */
    static final Comparator<RankedPair> STRONGEST_FIRST = Comparator.comparing(RankedPair::rank)
            .thenComparing(c -> c.assignment().intent()).thenComparing(c -> c.assignment().seq())
            .thenComparing(c -> c.pair().target().toString());

    /** Of level ones the older first, whatever they ask for. */
    static final Comparator<RankedPair> STRONGEST_THEN_OLDEST = Comparator.comparing(RankedPair::rank)
            .thenComparing(c -> c.assignment().seq());

    public Assignment assignment() {
        return pair.assignment();
    }

    /** This one in other audiences in which everyone stands as in its own: itself, where all that it looks at is the same. */
    RankedPair in(Audiences other, Audiences own) {
        Pair now = pair.in(other, own);
        return now == pair ? this : new RankedPair(now, rank);
    }

    boolean isLevelWith(RankedPair other) {
        return rank.compareTo(other.rank) == 0;
    }
}
