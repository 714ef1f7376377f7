package rivo.core.state;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Present;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;

/**
 * All that the state of a unit of a title hangs on.
 *
 * @param decision what it shall have; null where nobody assigned it
 * @param present what was found there; null for nothing
 * @param canBeSeen whether the title can be looked for once it is installed
 * @param givenBack whether it comes off because somebody gave it back
 * @param asked whether somebody has asked for what is offered and waits for an answer
 * @param job what the device last said of its job; null for nothing
 * @param needsFirst whether a title that it needs is to be installed first, and is not there yet
 */
public record Situation(@Nullable Decision decision, @Nullable Present present, boolean canBeSeen, boolean givenBack, boolean asked,
        @Nullable JobReport job, boolean needsFirst, Rest rest, Contact contact, PersonThere person, Opening opening) {

    public Situation {
        Objects.requireNonNull(rest);
        Objects.requireNonNull(contact);
        Objects.requireNonNull(person);
        Objects.requireNonNull(opening);
    }

    /** What the device has to bring about here; null where it leaves everything as it is. What is there already counts as well. */
    public Action.@Nullable Kind action() {
        Outcome outcome = decision == null ? null : decision.outcome();
        boolean makesWay = outcome == Outcome.REPLACED || outcome == Outcome.DISPLACED;
        if (givenBack && present != null || outcome == Outcome.UNINSTALL || makesWay && present != null && job != null && job.isFor(Action.Kind.REMOVE, null)) {
            return Action.Kind.REMOVE;
        }
        return outcome == Outcome.REQUIRED ? Action.Kind.INSTALL : null;
    }

    /** The release that shall be there; null where none is chosen. */
    public @Nullable Version wanted() {
        return decision == null || decision.release() == null ? null : decision.release().version();
    }

    /** Whether what is to be installed is there, in that version or a higher one. */
    public boolean isThere() {
        Version there = present == null ? null : present.version();
        Version wanted = wanted();
        return there != null && wanted != null && there.compareTo(wanted) >= 0;
    }

    /** The job for what is to be brought about; null where the device has said nothing of that. */
    public @Nullable JobReport currentJob() {
        Action.Kind action = action();
        Version wanted = wanted();
        String version = action == Action.Kind.INSTALL && wanted != null ? wanted.toString() : null;
        return job != null && action != null && job.isFor(action, version) ? job : null;
    }
}
