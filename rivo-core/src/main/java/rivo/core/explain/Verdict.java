package rivo.core.explain;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.resolve.LadderStep;
import rivo.core.rule.Clause;

/** What became of one pair of assignment and target at one place. A closed set: see {@link Kind}. */
public sealed interface Verdict {

    /** The kinds, one for each record. */
    enum Kind {
        DECIDES, DISAGREES, AGREES, WEAKER, LATER, STOPPED, EXCLUDED, NARROWED_OUT, OUTSIDE_BASE, RESTS, NO_REACH, NOT_LIVE
    }

    Kind kind();

    /** It is the winner. */
    record Decides() implements Verdict {
        @Override
        public Kind kind() {
            return Kind.DECIDES;
        }
    }

    /** It is level with others that want the opposite: together they are contested. */
    record Disagrees() implements Verdict {
        @Override
        public Kind kind() {
            return Kind.DISAGREES;
        }
    }

    /** It is level with the winner, and wants the same or less, or is newer. */
    record Agrees(Assignment winner) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.AGREES;
        }
    }

    /** It lost to {@code than} at {@code step}. */
    record Weaker(LadderStep step, Assignment than) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.WEAKER;
        }
    }

    /**
     * Its wave is not open yet.
     *
     * @param wave from 1 on
     * @param of how many there are
     * @param decides whether it is what the outcome "later" goes by
     */
    record Later(int wave, int of, boolean decides) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.LATER;
        }
    }

    /** It would reach, but the fence keeps it out. */
    record StoppedByFence(Ou fence) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.STOPPED;
        }
    }

    /**
     * It is left out by name.
     *
     * @param chain for a group the nested groups by which it belongs, from the excluded one down
     */
    record Excluded(Target by, List<Group> chain) implements Verdict {
        public Excluded {
            chain = List.copyOf(chain);
        }

        @Override
        public Kind kind() {
            return Kind.EXCLUDED;
        }
    }

    /**
     * The device does not satisfy the rule.
     *
     * @param clauses each as it turned out; empty where no device is looked at
     */
    record NarrowedOut(String rule, List<Clause> clauses) implements Verdict {
        public NarrowedOut {
            clauses = List.copyOf(clauses);
        }

        @Override
        public Kind kind() {
            return Kind.NARROWED_OUT;
        }
    }

    /** It has effect below another OU only. */
    record OutsideBase(Ou base) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.OUTSIDE_BASE;
        }
    }

    /** What it names, itself or as its base, has left the directory: it reaches nobody until that is back (section 11). */
    record Rests(GoneReference gone) implements Verdict {
        @Override
        public Kind kind() {
            return Kind.RESTS;
        }
    }

    /** Its target does not hold this place. */
    record DoesNotReach() implements Verdict {
        @Override
        public Kind kind() {
            return Kind.NO_REACH;
        }
    }

    /** It was paused or retired, or has not started. */
    record NotLive(Why why) implements Verdict {

        /** Why it has no say. */
        public enum Why {
            PAUSED, RETIRED, NOT_STARTED
        }

        @Override
        public Kind kind() {
            return Kind.NOT_LIVE;
        }
    }

    /** The fence that stops it, if one does. */
    default @Nullable Ou fence() {
        return this instanceof StoppedByFence stopped ? stopped.fence() : null;
    }
}
