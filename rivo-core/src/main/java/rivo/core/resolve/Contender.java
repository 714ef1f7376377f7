package rivo.core.resolve;

import java.util.Comparator;
import rivo.core.audience.Audiences;
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

    /** This one in other audiences in which everyone stands as in its own: itself, where all that it looks at is the same. */
    Contender in(Audiences other, Audiences own) {
        Pair now = pair.in(other, own);
        return now == pair ? this : new Contender(now, place);
    }

    boolean isLevelWith(Contender other) {
        return place.compareTo(other.place) == 0;
    }
}
