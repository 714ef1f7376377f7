package rivo.core.explain;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Group;
import rivo.core.resolve.RankedPair;

/** The place from which a trail is looked at. */
interface Standpoint {

    /**
     * What became of a live pair before the ladder.
     *
     * @param verdict null when it is a candidate
     * @param person through whom; empty without one
     * @param chain how the unit belongs to the group that is named
     */
    record Standing(@Nullable Verdict verdict, String person, List<Group> chain) {
    }

    Standing of(RankedPair ranked);
}
