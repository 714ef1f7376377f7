package rivo.core.audience;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.function.Supplier;
import rivo.core.estate.Follows;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;

/** The sets of units that have been worked out so far, by what was asked. Safe for any thread. */
final class KeptSets {

    /**
     * What was asked of the units of one scope.
     *
     * @param side the side that is followed
     */
    record Key(Question question, Follows side, Scope scope) {
    }

    /** The questions; a closed set. */
    sealed interface Question permits Reach, Holds, LastHeld, WaveShare, Below, Stopped, Satisfying {
    }

    /** Whom an included target reaches. */
    record Reach(Target target) implements Question {
    }

    /** Whom a target holds, for exclusions and waves. */
    record Holds(Target target) implements Question {
    }

    /** Whom a target that rests last held. */
    record LastHeld(Target target) implements Question {
    }

    /** Those reached by the target of whom a wave's shares take so many in ten thousand. */
    record WaveShare(Target target, String assignment, int limit) implements Question {
    }

    /** Who is in the OU at this position or below. */
    record Below(int ou) implements Question {
    }

    /** Whom the fences at these positions stop. */
    record Stopped(List<Integer> fences, boolean namesPerson) implements Question {
    }

    /** Who satisfies a rule. */
    record Satisfying(String rule) implements Question {
    }

    private final Map<Key, Positions> sets = new ConcurrentHashMap<>();

    Positions get(Key key, Supplier<Positions> compute) {
        Positions known = sets.get(key);
        if (known == null) {
            // Not computed within the map: one set is often made of others.
            known = compute.get();
            sets.put(key, known);
        }
        return known;
    }

    /**
     * Keeps those of other sets of the same units that hold here too.
     *
     * @param targets which of them hold the very same units
     * @param rules which of them are satisfied by the very same devices
     */
    void keep(KeptSets others, Predicate<Target> targets, Predicate<String> rules) {
        others.sets.forEach((key, set) -> {
            if (holds(key.question(), targets, rules)) {
                sets.put(key, set);
            }
        });
    }

    private static boolean holds(Question question, Predicate<Target> targets, Predicate<String> rules) {
        if (question instanceof Reach reach) {
            return targets.test(reach.target());
        }
        if (question instanceof Holds holds) {
            return targets.test(holds.target());
        }
        if (question instanceof LastHeld held) {
            return targets.test(held.target());
        }
        if (question instanceof WaveShare share) {
            return targets.test(share.target());
        }
        return !(question instanceof Satisfying satisfying) || rules.test(satisfying.rule());
    }
}
