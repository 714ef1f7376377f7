package rivo.server.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;

/**
 * What edits do to the assignments of an estate. An edit takes the place of whatever is about its title or kit at exactly its
 * OU: an assignment that names other OUs as well goes on there.
 */
final class Edits {

    /**
     * What edits come to.
     *
     * @param assignments those that are new or different, in the order in which they came to be
     * @param choices what the new ones fix, by their ids
     */
    record Changes(List<Assignment> assignments, Map<String, Map<String, String>> choices) {
    }

    private final Map<String, Assignment> changed = new LinkedHashMap<>();
    private final Map<String, Map<String, String>> choices = new LinkedHashMap<>();
    private final Estate before;
    /** What an assignment fixes now, by its id. */
    private final Function<String, Map<String, String>> fixed;
    private long nextSeq;

    private Edits(Estate before, Function<String, Map<String, String>> fixed) {
        this.before = before;
        this.fixed = fixed;
        this.nextSeq = before.assignments().nextSeq();
    }

    /**
     * What the edits come to.
     *
     * @param fixed what an assignment that is there fixes of its title's choices, by its id
     * @throws RefusedException with every edit that names a title, a kit or an OU that does not exist
     */
    static Changes changes(Estate before, Function<String, Map<String, String>> fixed, List<DraftEdit> edits) {
        check(before, edits);
        Edits applied = new Edits(before, fixed);
        edits.forEach(applied::apply);
        return new Changes(List.copyOf(applied.changed.values()), Map.copyOf(applied.choices));
    }

    /** Whether the estate already is what this edit asks for. */
    static boolean isSo(Estate estate, Function<String, Map<String, String>> fixed, DraftEdit edit) {
        return changes(estate, fixed, List.of(edit)).assignments().isEmpty();
    }

    private static void check(Estate estate, List<DraftEdit> edits) {
        List<Problem> problems = new ArrayList<>();
        for (int i = 0; i < edits.size(); i++) {
            Subject about = edits.get(i).about();
            if (about.kit() ? !estate.kits().containsKey(about.id()) : estate.title(about.id()) == null) {
                problems.add(new Problem(about.kit() ? "unknown-kit" : "unknown-title", "edits[" + i + "].subject",
                        "There is no " + (about.kit() ? "kit " : "title ") + about.id() + "; pick one from the catalogue."));
            }
            if (about.kit() && !edits.get(i).fixes().isEmpty()) {
                problems.add(new Problem("kit-has-no-choices", "edits[" + i + "].choices",
                        "A kit has no choices; assign the title itself to fix them."));
            }
            boolean dropsWhatRests = edits.get(i).wanted() == null && estate.gone().containsKey(Target.ou(edits.get(i).ou()));
            if (estate.ous().find(edits.get(i).ou()) == null && !dropsWhatRests) {
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
        for (Assignment held : held(before, edit)) {
            if (!there && held.intent() == wanted && held.binding() == edit.binding()
                    && fixed.apply(held.id()).equals(edit.fixes())) {
                there = true;
            } else {
                Assignment now = changed.getOrDefault(held.id(), held);
                changed.put(held.id(), without(now, edit.ou()));
            }
        }
        if (wanted != null && !there) {
            long seq = nextSeq++;
            Assignment added = Assignment.of("a" + seq, seq, edit.about(), wanted, List.of(Target.ou(edit.ou())))
                    .withBinding(edit.binding());
            changed.put(added.id(), added);
            choices.put(added.id(), edit.fixes());
        }
    }

    /** The active assignments about what the edit is about, at its OU. */
    static List<Assignment> held(Estate estate, DraftEdit edit) {
        Subject about = edit.about();
        List<Assignment> all = about.kit() ? estate.assignments().all() : estate.assignments().of(about.id());
        return all.stream().filter(a -> isActive(a) && a.subject().equals(about) && a.include().contains(Target.ou(edit.ou())))
                .toList();
    }

    private static Assignment without(Assignment held, String ou) {
        List<Target> rest = held.include().stream().filter(target -> !target.equals(Target.ou(ou))).toList();
        return rest.isEmpty() ? held.retired() : held.withInclude(rest);
    }

    private static boolean isActive(Assignment assignment) {
        return assignment.state() == AssignmentState.ACTIVE;
    }
}
