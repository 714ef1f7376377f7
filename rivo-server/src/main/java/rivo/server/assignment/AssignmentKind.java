package rivo.server.assignment;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
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
        List<Assignment> changed = put.stream().map(AssignmentDocument::assignment).toList();
        Estate after = before.withAssignments(changed);
        CheckedRules.ofAssignments(after, changed);
        return after;
    }

    @Override
    public @Nullable AssignmentDocument retired(AssignmentDocument document) {
        return document.with(document.assignment().withState(AssignmentState.RETIRED));
    }
}
