package rivo.core.explain;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.Gate;
import rivo.core.audience.Pair;
import rivo.core.audience.Positions;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Scope;
import rivo.core.resolve.Resolver;

/**
 * Whom one assignment means, before the ladder (section 3 of the resolution rules): whom its targets reach, what keeps each of the others out,
 * and in which wave those come that remain. Judged by the very gates that decide. Immutable; safe for any thread.
 *
 * @param reached whom one of the include targets holds
 * @param served those of them whom nothing keeps out; their wave may still be closed
 * @param leftOut those whom something keeps out, each once, in the order in which it is asked; of people on one device the one counts for whom it
 *     got farthest
 * @param waves those of the served that each wave takes; empty without waves
 */
public record AssignmentReach(UnitSet reached, UnitSet served, List<LeftOut> leftOut, List<UnitSet> waves) {

    /** Whom one thing keeps out. @param by a verdict that drops a pair before the ladder */
    public record LeftOut(Verdict by, UnitSet units) {
    }

    public AssignmentReach {
        leftOut = List.copyOf(leftOut);
        waves = List.copyOf(waves);
    }

    /**
     * Whom an assignment means of the units of a scope. Costs a set operation for each pair, gate and wave.
     *
     * @param scope of the title, or of the kit's title, that is looked at
     */
    public static AssignmentReach of(Resolver resolver, Assignment assignment, Scope scope) {
        return new Walk(resolver.audiences(), assignment, scope).walk();
    }

    /** The devices that are served, each once. */
    public DeviceSet devices(Audiences audiences) {
        return audiences.devicesOf(served);
    }

    /** One evaluation. Used once, by one thread. */
    private static final class Walk {

        private final Audiences audiences;
        private final Assignment assignment;
        private final Scope scope;
        private final Map<Verdict, Lost> lost = new LinkedHashMap<>();
        private final List<Positions> reached = new ArrayList<>();
        private final List<Positions> passing = new ArrayList<>();
        private final List<Waved> waved = new ArrayList<>();

        /** Whom one thing keeps out, for each pair. @param asked the later in a pair's row, the larger */
        private record Lost(int asked, List<Positions> units) {
        }

        /** A pair's units that have passed, in own units. */
        private record Waved(Pair pair, Positions own) {
        }

        Walk(Audiences audiences, Assignment assignment, Scope scope) {
            this.audiences = audiences;
            this.assignment = assignment;
            this.scope = scope;
        }

        AssignmentReach walk() {
            Pair.of(audiences, assignment, scope).forEach(this::pair);
            Positions served = Positions.union(passing);
            Map<Verdict, Positions> units = new HashMap<>();
            Positions told = served;
            List<Map.Entry<Verdict, Lost>> lastAskedFirst = lost.entrySet().stream()
                    .sorted(Comparator.comparingInt((Map.Entry<Verdict, Lost> each) -> -each.getValue().asked())).toList();
            for (Map.Entry<Verdict, Lost> each : lastAskedFirst) {
                Positions own = Positions.union(each.getValue().units()).without(told);
                told = told.or(own);
                units.put(each.getKey(), own);
            }
            List<LeftOut> leftOut = lost.keySet().stream().filter(by -> !Objects.requireNonNull(units.get(by)).isEmpty())
                    .map(by -> new LeftOut(by, new UnitSet(scope, Objects.requireNonNull(units.get(by))))).toList();
            return new AssignmentReach(new UnitSet(scope, Positions.union(reached)), new UnitSet(scope, served), leftOut, inWaves());
        }

        private void pair(Pair pair) {
            Positions at = pair.reaches(Positions.range(0, audiences.size(pair.ownScope())));
            reached.add(ofTitle(pair, at));
            if (audiences.rests(pair.target())) {
                return;
            }
            for (int g = 0; g < pair.gates().size(); g++) {
                Positions next = pair.gates().get(g).pass(at);
                lose(pair, g, at.without(next));
                at = next;
            }
            passing.add(ofTitle(pair, at));
            waved.add(new Waved(pair, at));
        }

        private void lose(Pair pair, int asked, Positions units) {
            if (units.isEmpty()) {
                return;
            }
            Gate gate = pair.gates().get(asked);
            if (gate instanceof Gate.Fence fence) {
                Positions rest = units;
                for (Gate.Fence.Stop stop : fence.fences()) {
                    note(pair, new Verdict.StoppedByFence(stop.fence()), asked, rest.and(stop.stopped()));
                    rest = rest.without(stop.stopped());
                }
                return;
            }
            note(pair, gate.match(resting -> new Verdict.Rests(Objects.requireNonNull(audiences.estate().gone().get(resting.gone()))),
                    base -> new Verdict.OutsideBase(base.base()), within -> new Verdict.NarrowedOut(within.rule(), List.of()),
                    exclusion -> new Verdict.Excluded(exclusion.target(), List.of()), fence -> new Verdict.DoesNotReach()), asked, units);
        }

        private void note(Pair pair, Verdict by, int asked, Positions units) {
            if (!units.isEmpty()) {
                lost.computeIfAbsent(by, verdict -> new Lost(asked, new ArrayList<>())).units().add(ofTitle(pair, units));
            }
        }

        /** Own units as units of the title: following the user, the devices of a title per device. */
        private Positions ofTitle(Pair pair, Positions own) {
            return pair.ownScope() == scope ? own : audiences.units().devicesOf(own);
        }

        /** A unit that several targets hold is in the first wave that takes it through any of them. */
        private List<UnitSet> inWaves() {
            int waves = assignment.waves().size();
            if (waves == 0) {
                return List.of();
            }
            List<List<Positions>> taken = waved.stream().map(pair -> Objects.requireNonNull(pair.pair().waves()).taken(pair.own()).stream()
                    .map(own -> ofTitle(pair.pair(), own)).toList()).toList();
            List<UnitSet> all = new ArrayList<>();
            Positions before = Positions.NONE;
            for (int i = 0; i < waves; i++) {
                int wave = i;
                Positions own = Positions.union(taken.stream().map(pair -> pair.get(wave)).toList()).without(before);
                all.add(new UnitSet(scope, own));
                before = before.or(own);
            }
            return all;
        }
    }
}
