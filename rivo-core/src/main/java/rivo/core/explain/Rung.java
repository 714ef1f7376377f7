package rivo.core.explain;

import java.util.List;
import rivo.core.estate.Assignment;
import rivo.core.estate.Group;
import rivo.core.estate.Target;
import rivo.core.resolve.Rank;

/**
 * One line of a trail: a pair of assignment and target, its rank on the ladder, and what became of it.
 *
 * @param person the id of the person through whom it is looked at; empty where no person has a part in it
 * @param chain for a group that reaches: the nested groups by which the unit belongs, from the named one down
 */
public record Rung(Assignment assignment, Target target, Rank rank, Verdict verdict, String person,
        List<Group> chain) {

    public Rung {
        chain = List.copyOf(chain);
    }
}
