package rivo.server.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;

/**
 * What edits do to the assignments of an estate. An edit takes the place of whatever speaks for its title at exactly its
 * OU: an assignment that names other OUs as well goes on there.
 */
final class Edits {

    /** Assignments that are new or different, in the order in which they came to be. */
    private final Map<String, Assignment> changed = new LinkedHashMap<>();
    private final Estate before;
    private long nextSeq;

    private Edits(Estate before) {
        this.before = before;
        this.nextSeq = before.assignments().nextSeq();
    }

    /**
     * The assignments that the edits add or change.
     *
     * @throws RefusedException with every edit that names a title or an OU that does not exist
     */
    static List<Assignment> changes(Estate before, List<DraftEdit> edits) {
        check(before, edits);
        Edits applied = new Edits(before);
        edits.forEach(applied::apply);
        return List.copyOf(applied.changed.values());
    }

    /** Whether the estate already is what this edit asks for. */
    static boolean isSo(Estate estate, DraftEdit edit) {
        return changes(estate, List.of(edit)).isEmpty();
    }

    private static void check(Estate estate, List<DraftEdit> edits) {
        List<Problem> problems = new ArrayList<>();
        for (int i = 0; i < edits.size(); i++) {
            if (estate.title(edits.get(i).title()) == null) {
                problems.add(new Problem("unknown-title", "edits[" + i + "].title", "There is no title "
                        + edits.get(i).title() + "; pick one from the catalogue."));
            }
            if (estate.ous().find(edits.get(i).ou()) == null) {
                problems.add(new Problem("unknown-ou", "edits[" + i + "].ou",
                        "An OU of this draft is no longer in the directory; take that edit out of the draft."));
            }
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    private void apply(DraftEdit edit) {
        Intent wanted = edit.wanted();
        boolean there = false;
        for (Assignment held : before.assignments().of(edit.title())) {
            if (!isActive(held) || !held.include().contains(Target.ou(edit.ou()))) {
                continue;
            }
            if (!there && held.intent() == wanted && held.binding() == edit.binding()) {
                there = true;
            } else {
                Assignment now = changed.getOrDefault(held.id(), held);
                changed.put(held.id(), without(now, edit.ou()));
            }
        }
        if (wanted != null && !there) {
            long seq = nextSeq++;
            Assignment added = Assignment.of("a" + seq, seq, Subject.title(edit.title()), wanted,
                    List.of(Target.ou(edit.ou()))).withBinding(edit.binding());
            changed.put(added.id(), added);
        }
    }

    private static Assignment without(Assignment held, String ou) {
        List<Target> rest = held.include().stream().filter(target -> !target.equals(Target.ou(ou))).toList();
        return rest.isEmpty() ? held.retired() : held.withInclude(rest);
    }

    private static boolean isActive(Assignment assignment) {
        return assignment.state() == AssignmentState.ACTIVE;
    }
}
