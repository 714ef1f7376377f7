package rivo.core.resolve;

import java.util.Comparator;
import rivo.core.audience.Pair;
import rivo.core.estate.Assignment;

/** A pair with its place on the ladder. */
public record Contender(Pair pair, Place place) {

    /** The stronger first; of level ones the stronger intent, then the older. */
    static final Comparator<Contender> STRONGEST_FIRST = Comparator.comparing(Contender::place)
            .thenComparing(c -> c.assignment().intent()).thenComparing(c -> c.assignment().seq())
            .thenComparing(c -> c.pair().target().toString());

    /** Of level ones the older first, whatever they ask for. */
    static final Comparator<Contender> STRONGEST_THEN_OLDEST = Comparator.comparing(Contender::place)
            .thenComparing(c -> c.assignment().seq());

    public Assignment assignment() {
        return pair.assignment();
    }

    boolean isLevelWith(Contender other) {
        return place.compareTo(other.place) == 0;
    }
}
