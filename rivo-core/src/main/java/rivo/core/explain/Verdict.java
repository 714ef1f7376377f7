package rivo.core.explain;

import java.util.function.Function;
import rivo.core.estate.Assignment;
import rivo.core.estate.Ou;
import rivo.core.resolve.LadderStep;

/** What became of one pair of assignment and target at one place. A closed set: see {@link #match}. */
public sealed interface Verdict {

    /** It is the winner. */
    record Decides() implements Verdict {
    }

    /** It is level with others that want the opposite: together they are contested. */
    record Disagrees() implements Verdict {
    }

    /** It is level with the winner and wants the same, but is newer. */
    record Agrees(Assignment winner) implements Verdict {
    }

    /** It lost to {@code than} at {@code step}. */
    record Weaker(LadderStep step, Assignment than) implements Verdict {
    }

    /** It would reach, but the fence keeps it out. */
    record StoppedByFence(Ou fence) implements Verdict {
    }

    /** Its target does not hold this place. */
    record DoesNotReach() implements Verdict {
    }

    /** It was retired. */
    record NotLive() implements Verdict {
    }

    /** Calls the function for the kind that this is. */
    default <T> T match(Function<Decides, T> decides, Function<Disagrees, T> disagrees, Function<Agrees, T> agrees,
            Function<Weaker, T> weaker, Function<StoppedByFence, T> stopped, Function<DoesNotReach, T> doesNotReach,
            Function<NotLive, T> notLive) {
        if (this instanceof Decides v) {
            return decides.apply(v);
        }
        if (this instanceof Disagrees v) {
            return disagrees.apply(v);
        }
        if (this instanceof Agrees v) {
            return agrees.apply(v);
        }
        if (this instanceof Weaker v) {
            return weaker.apply(v);
        }
        if (this instanceof StoppedByFence v) {
            return stopped.apply(v);
        }
        if (this instanceof DoesNotReach v) {
            return doesNotReach.apply(v);
        }
        return notLive.apply((NotLive) this);
    }
}
