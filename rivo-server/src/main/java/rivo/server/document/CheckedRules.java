package rivo.server.document;

import java.util.Collection;
import java.util.List;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.rule.EstateRules;

/** Refuses rules that do not parse, or that name what there is not. */
public final class CheckedRules {

    private CheckedRules() {
    }

    /** @throws RefusedException with everything that is wrong with their rules */
    public static void ofAssignments(Estate estate, Collection<Assignment> changed) {
        if (changed.stream().anyMatch(a -> a.within() != null)) {
            check(estate, EstateParts.none(estate.asOf()).withAssignments(List.copyOf(changed)));
        }
    }

    /** Looks at every rule there is, since any may name a collection. @throws RefusedException with everything that is wrong with them */
    public static void ofAll(Estate estate) {
        check(estate, EstateParts.none(estate.asOf()).withTitles(List.copyOf(estate.titles())).withAssignments(estate.assignments().all()));
    }

    private static void check(Estate estate, EstateParts parts) {
        List<Problem> problems = EstateRules.problems(parts.withCollections(List.copyOf(estate.collections().values())));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
