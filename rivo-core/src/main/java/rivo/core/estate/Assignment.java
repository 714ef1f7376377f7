package rivo.core.estate;

import java.util.List;
import java.util.Objects;

/**
 * What an administrator decided: a title, an intent, and the OUs whose devices it speaks for.
 *
 * @param seq its place in the order of publishing; the lower is the older
 * @param title the id of the title
 * @param ous the ids of the OUs it names
 * @param binding whether it crosses fences and cannot be undone below
 * @param priority 0 to 1000, both included; the higher wins between level ones
 */
public record Assignment(String id, long seq, AssignmentState state, String title, Intent intent, List<String> ous,
        boolean binding, int priority) {

    /** The priority of an assignment that names none. */
    public static final int USUAL_PRIORITY = 500;

    public Assignment {
        Objects.requireNonNull(id);
        Objects.requireNonNull(state);
        Objects.requireNonNull(title);
        Objects.requireNonNull(intent);
        ous = List.copyOf(ous);
        if (priority < 0 || priority > 1000) {
            throw new RefusedException("bad-priority", "assignment:" + id,
                    "The priority " + priority + " is outside 0 to 1000; choose one inside.");
        }
    }

    public boolean isLive() {
        return state == AssignmentState.ACTIVE;
    }

    public Assignment retired() {
        return new Assignment(id, seq, AssignmentState.RETIRED, title, intent, ous, binding, priority);
    }
}
