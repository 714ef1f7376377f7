package rivo.core.resolve;

import java.util.Comparator;
import rivo.core.estate.Assignment;

/**
 * A live assignment together with one of the OUs it names.
 *
 * @param target the position of the OU
 */
public record Candidate(Assignment assignment, int target, Place place) {

    /** The stronger first; level ones the older first. */
    static final Comparator<Candidate> STRONGEST_FIRST = Comparator.comparing(Candidate::place)
            .thenComparingLong(c -> c.assignment().seq()).thenComparingInt(Candidate::target);
}
