package rivo.server.change;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Edits that wait to be published: a list of steps, each of one or more edits, of which the first so many are done. Undo and redo go along
 * that list; a new step takes the place of those that were undone. Of several edits of one document the last counts. Immutable.
 *
 * @param steps the oldest first
 * @param done how many of them count
 */
record Draft(List<Step> steps, int done) {

    static final Draft EMPTY = new Draft(List.of(), 0);

    /** So many steps can be undone at the least; older ones grow together. */
    static final int MOST_STEPS = 400;

    /** What was done in one go, and is undone in one go. */
    record Step(List<Edit> edits) {
        Step {
            edits = List.copyOf(edits);
        }
    }

    Draft {
        steps = List.copyOf(steps);
        if (done < 0 || done > steps.size()) {
            throw new IllegalArgumentException("no more steps count than there are");
        }
    }

    /** The edits that count, one for each document, that which was made last at the end. */
    @JsonIgnore
    List<Edit> edits() {
        return List.copyOf(lastOf(steps.subList(0, done)).values());
    }

    private static Map<Edit.Key, Edit> lastOf(List<Step> steps) {
        Map<Edit.Key, Edit> last = new LinkedHashMap<>();
        for (Step step : steps) {
            for (Edit edit : step.edits()) {
                last.remove(edit.key());
                if (edit.act() != Act.DROP) {
                    last.put(edit.key(), edit);
                }
            }
        }
        return last;
    }

    /** Null where there is no such edit, or it counts no more. */
    @Nullable Edit find(String edit) {
        return edits().stream().filter(one -> one.id().equals(edit)).findFirst().orElse(null);
    }

    @JsonIgnore
    boolean isEmpty() {
        return edits().isEmpty();
    }

    /** With one more step; what was undone is forgotten. */
    Draft with(List<Edit> edits) {
        if (edits.isEmpty()) {
            return this;
        }
        List<Step> next = new ArrayList<>(steps.subList(0, done));
        next.add(new Step(edits));
        if (next.size() > MOST_STEPS) {
            List<Step> old = next.subList(0, next.size() - MOST_STEPS / 2);
            Step together = new Step(List.copyOf(lastOf(old).values()));
            old.clear();
            next.add(0, together);
        }
        return new Draft(next, next.size());
    }

    Draft undone() {
        return done == 0 ? this : new Draft(steps, done - 1);
    }

    Draft redone() {
        return done == steps.size() ? this : new Draft(steps, done + 1);
    }

    boolean mayUndo() {
        return done > 0;
    }

    boolean mayRedo() {
        return done < steps.size();
    }
}
