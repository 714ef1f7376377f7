package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;

/**
 * The pairs of a live assignment and a target that speak for one title, in ladder order. Whether one holds at a
 * device is asked of {@link rivo.core.audience.Reach}, by the resolver and by the trail alike.
 */
public final class Candidates {

    private Candidates() {
    }

    /** Those of one title, the strongest first; none for an unknown title. */
    public static List<Candidate> of(Estate estate, String title) {
        List<Candidate> candidates = new ArrayList<>();
        for (Assignment assignment : estate.assignments().of(title)) {
            if (assignment.isLive()) {
                for (String ou : assignment.ous()) {
                    candidates.add(candidate(estate, assignment, ou));
                }
            }
        }
        candidates.sort(Candidate.STRONGEST_FIRST);
        return List.copyOf(candidates);
    }

    /** The pair of an assignment, live or not, and one of its OUs. */
    public static Candidate candidate(Estate estate, Assignment assignment, String ou) {
        int target = estate.ous().position(ou);
        return new Candidate(assignment, target,
                new Place(assignment.binding(), estate.ous().depth(target), assignment.priority()));
    }
}
