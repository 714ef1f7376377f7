package rivo.server.assignment;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.server.document.CheckedRules;
import rivo.server.document.DocumentKind;

/** Assignments. A retired one stays, for what it left behind. */
public final class AssignmentKind extends DocumentKind<AssignmentDocument> {

    AssignmentKind() {
        super("assignment", AssignmentDocument.class);
    }

    @Override
    protected Estate estate(Estate before, List<AssignmentDocument> put, Set<String> retired) {
        if (!retired.isEmpty()) {
            throw new IllegalArgumentException("a retired assignment stays in the estate");
        }
        put.forEach(AssignmentKind::checkDeadline);
        List<Assignment> changed = put.stream().map(AssignmentDocument::assignment).toList();
        Estate after = before.withAssignments(changed);
        CheckedRules.ofAssignments(after, changed);
        return after;
    }

    /** What is on record already may say so, and can be ended as it is; nobody writes it anew. */
    private static void checkDeadline(AssignmentDocument document) {
        Instant from = document.from();
        Delivery.Deadline deadline = document.delivery().deadline();
        if (document.assignment().state() != AssignmentState.RETIRED && from != null && deadline != null && deadline.at() != null && !deadline.at().isAfter(from)) {
            throw new RefusedException("bad-deadline", "assignment:" + document.id() + ".deadline.at",
                    "The deadline is not after the instant from which the assignment is live; move one of the two.");
        }
    }

    @Override
    public @Nullable AssignmentDocument retired(AssignmentDocument document) {
        return document.with(document.assignment().withState(AssignmentState.RETIRED));
    }
}
