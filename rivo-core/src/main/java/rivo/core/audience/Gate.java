package rivo.core.audience;

import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;

/**
 * One condition that a pair has to pass after its target has reached a unit. Immutable. The same gates decide and
 * explain: a trail asks each in turn.
 *
 * <p>A closed set: see {@link #match}.
 */
public sealed interface Gate {

    /** The units that pass, of those that have come so far. */
    Positions pass(Positions units);

    /** Whether this one unit passes. */
    boolean passes(int unit);

    /** Nothing passes, since what the assignment is bound to has gone: its base (section 11). */
    record Resting(Target gone) implements Gate {
        @Override
        public Positions pass(Positions units) {
            return Positions.NONE;
        }

        @Override
        public boolean passes(int unit) {
            return false;
        }
    }

    /** Below the base of the assignment. */
    record Base(Ou base, Positions below) implements Gate {
        @Override
        public Positions pass(Positions units) {
            return units.and(below);
        }

        @Override
        public boolean passes(int unit) {
            return below.contains(unit);
        }
    }

    /** Satisfying the assignment's {@code within}. */
    record Within(String rule, Positions satisfying) implements Gate {
        @Override
        public Positions pass(Positions units) {
            return units.and(satisfying);
        }

        @Override
        public boolean passes(int unit) {
            return satisfying.contains(unit);
        }
    }

    /** Not excluded by this target. */
    record Exclusion(Target target, Positions held) implements Gate {
        @Override
        public Positions pass(Positions units) {
            return units.without(held);
        }

        @Override
        public boolean passes(int unit) {
            return !held.contains(unit);
        }
    }

    /**
     * Not behind a fence.
     *
     * @param fences those that the pair is not inside of, each with the units that it stops
     */
    record Fence(List<Stop> fences, Positions stopped) implements Gate {

        /** One fence and the units that it stops. */
        public record Stop(Ou fence, Positions stopped) {
        }

        @Override
        public Positions pass(Positions units) {
            return units.without(stopped);
        }

        @Override
        public boolean passes(int unit) {
            return !stopped.contains(unit);
        }

        /** The outermost fence that stops the unit; null when none does. */
        public @Nullable Ou stopping(int unit) {
            for (Stop stop : fences) {
                if (stop.stopped().contains(unit)) {
                    return stop.fence();
                }
            }
            return null;
        }
    }

    /** Calls the function for the kind that this is. */
    default <T> T match(Function<Resting, T> resting, Function<Base, T> base, Function<Within, T> within, Function<Exclusion, T> exclusion,
            Function<Fence, T> fence) {
        if (this instanceof Resting gate) {
            return resting.apply(gate);
        }
        if (this instanceof Base gate) {
            return base.apply(gate);
        }
        if (this instanceof Within gate) {
            return within.apply(gate);
        }
        if (this instanceof Exclusion gate) {
            return exclusion.apply(gate);
        }
        return fence.apply((Fence) this);
    }
}
