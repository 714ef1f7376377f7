package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.OuTree;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;

/**
 * An assignment with one of its include targets, ready to say at which units of a title it is a candidate (section 3 of
 * the resolution rules). Immutable but for what it works out when it is first asked; safe for any thread.
 *
 * <p><b>Own units:</b> following the user, everything is decided for each person of a device on their own, so in units of
 * scope user; for a title of scope device the devices of those units are what comes out.
 */
public final class Pair {

    private final PersonUnits units;
    private final Assignment assignment;
    private final Target target;
    /** Of the title. */
    private final Scope scope;
    private final int number;
    /** Where it is worked out when it is first asked; null once it has been. */
    private volatile @Nullable Audiences audiences;
    private volatile @Nullable Sets sets;
    private volatile @Nullable Split anywhere;

    /**
     * What it looks at.
     *
     * @param own the scope of the own units
     */
    private record Sets(Scope own, Positions reach, List<Gate> gates, @Nullable Waves waves, Sureness sureness) {

        static Sets of(Audiences audiences, Assignment assignment, Target target, Scope scope) {
            boolean followsUser = assignment.follows() == Follows.USER;
            Scope asked = followsUser ? Scope.USER : scope;
            List<Gate> gates = Pair.gates(audiences, assignment, target, asked);
            Waves waves = assignment.waves().isEmpty() ? null : new Waves(audiences, assignment, target, asked);
            boolean plain = gates.isEmpty() && waves == null;
            boolean onlyFences = waves == null && gates.stream().allMatch(Gate.Fence.class::isInstance);
            Sureness sureness = plain && (!followsUser || scope == Scope.DEVICE) ? Sureness.ALWAYS
                    : onlyFences ? Sureness.WHERE_SIMPLE : Sureness.NEVER;
            Scope own = followsUser && !plain ? Scope.USER : scope;
            return new Sets(own, audiences.reach(target, assignment.follows(), own), gates, waves, sureness);
        }
    }

    private Pair(Audiences audiences, Assignment assignment, Target target, Scope scope) {
        this.units = audiences.units();
        this.audiences = audiences;
        this.assignment = assignment;
        this.target = target;
        this.scope = scope;
        this.number = audiences.number(target, assignment.follows());
    }

    /** A device asks few of the pairs, and what the others look at need not be known for that. */
    private Sets sets() {
        Sets known = sets;
        Audiences in = audiences;
        if (known == null && in != null) {
            known = Sets.of(in, assignment, target, scope);
            synchronized (this) {
                sets = known;
                audiences = null;
            }
        }
        return known == null ? Objects.requireNonNull(sets) : known;
    }

    /** Whether it has worked out what it looks at. */
    public boolean hasLooked() {
        return sets != null;
    }

    /** Works out what it looks at, so that whoever asks it does not wait for that. */
    public void look() {
        sets();
    }

    /** The pairs of an assignment, one for each of its include targets, for titles of this scope. */
    public static List<Pair> of(Audiences audiences, Assignment assignment, Scope scope) {
        return assignment.include().stream().distinct().map(t -> new Pair(audiences, assignment, t, scope)).toList();
    }

    private static List<Gate> gates(Audiences audiences, Assignment assignment, Target target, Scope own) {
        Follows side = assignment.follows();
        Estate estate = audiences.estate();
        List<Gate> gates = new ArrayList<>(2);
        String base = assignment.base();
        if (base != null && audiences.rests(Target.ou(base))) {
            return List.of(new Gate.Resting(Target.ou(base)));
        }
        if (base != null && estate.ous().position(base) > 0) {
            int ou = estate.ous().position(base);
            gates.add(new Gate.Base(estate.ous().at(ou), audiences.below(ou, side, own)));
        }
        if (assignment.within() != null) {
            gates.add(new Gate.Within(assignment.within(), audiences.satisfying(assignment.within(), own)));
        }
        for (Target excluded : assignment.exclude()) {
            gates.add(new Gate.Exclusion(excluded, audiences.excludes(excluded, side, own)));
        }
        fence(audiences, assignment, target, own, gates);
        return List.copyOf(gates);
    }

    private static void fence(Audiences audiences, Assignment assignment, Target target, Scope own, List<Gate> gates) {
        if (assignment.binding() || target.kind() == Target.Kind.DEVICE) {
            return;
        }
        List<Integer> outside = fencesOutside(audiences.estate(), assignment, target);
        if (outside.isEmpty()) {
            return;
        }
        Follows side = assignment.follows();
        boolean named = target.kind() == Target.Kind.USER;
        Positions stopped = audiences.stopped(outside, side, named, own);
        Positions reach = audiences.reach(target, side, own);
        if (reach.meets(stopped)) {
            List<Gate.Fence.Stop> stops = new ArrayList<>();
            outside.forEach(fence -> stops.add(new Gate.Fence.Stop(audiences.estate().ous().at(fence),
                    audiences.stopped(fence, side, named, own))));
            gates.add(new Gate.Fence(stops, stopped));
        }
    }

    /** The fenced OUs, from the root down, that the pair is not inside of. */
    private static List<Integer> fencesOutside(Estate estate, Assignment assignment, Target target) {
        OuTree ous = estate.ous();
        List<Integer> outside = new ArrayList<>();
        for (int fence : ous.fenced()) {
            boolean inside = isIn(ous, assignment.base(), fence)
                    || target.kind() == Target.Kind.OU && isIn(ous, target.id(), fence)
                    || target.kind() == Target.Kind.COLLECTION && isIn(ous, base(estate, target), fence);
            if (!inside) {
                outside.add(fence);
            }
        }
        return outside;
    }

    private static @Nullable String base(Estate estate, Target collection) {
        return Objects.requireNonNull(estate.collections().get(collection.id())).base();
    }

    private static boolean isIn(OuTree ous, @Nullable String ou, int fence) {
        return ou != null && ous.find(ou) != null && ous.isAtOrBelow(ous.position(ou), fence);
    }

    public Assignment assignment() {
        return assignment;
    }

    /** The number of the target, with the side that is followed. */
    public int number() {
        return number;
    }

    public Target target() {
        return target;
    }

    /** What a pair comes to among units that are still undecided. */
    public record Split(Positions now, Positions later) {
    }

    /** Where among the remaining units of the title it is a candidate, and where its wave is closed. */
    public Split among(Remaining remaining) {
        Split anywhere = anywhere();
        return new Split(remaining.and(anywhere.now()),
                anywhere.later().isEmpty() ? Positions.NONE : remaining.and(anywhere.later()));
    }

    /** What it comes to among all units; worked out when it is first asked for. */
    private Split anywhere() {
        Split known = anywhere;
        if (known == null) {
            Sets of = sets();
            Split split = split(of, through(of));
            known = of.own == scope ? split : new Split(units.devicesOf(split.now()), units.devicesOf(split.later()));
            anywhere = known;
        }
        return known;
    }

    /** What a pair comes to at one unit. */
    public enum Standing {
        NO_CANDIDATE, LATER, CANDIDATE
    }

    /**
     * What it comes to at one unit of the title, whose {@link TargetRow} says that the pair may hold there. Costs a probe
     * or two where it is known what the pair comes to among all units, else one for each own unit and gate.
     */
    public Standing at(int unit, TargetRow row) {
        Sets of = sets();
        if (of.sureness.isSure(row)) {
            return Standing.CANDIDATE;
        }
        Split known = anywhere;
        if (known != null) {
            return known.now().contains(unit) ? Standing.CANDIDATE
                    : known.later().contains(unit) ? Standing.LATER : Standing.NO_CANDIDATE;
        }
        if (of.own == scope) {
            return atOwn(of, unit);
        }
        Standing best = Standing.NO_CANDIDATE;
        for (int person = units.from(unit); person < units.to(unit); person++) {
            Standing standing = atOwn(of, person);
            best = standing.compareTo(best) > 0 ? standing : best;
        }
        return best;
    }

    /** At which of the units where the {@link TargetRow} says that a pair may hold it is a candidate without asking. */
    enum Sureness {
        /** At those whose row is {@linkplain TargetRow#isSimple simple}: only fences, or whose row it is, would matter. */
        WHERE_SIMPLE,
        ALWAYS,
        NEVER;

        boolean isSure(TargetRow row) {
            return this == ALWAYS || this == WHERE_SIMPLE && row.isSimple();
        }
    }

    Sureness sureness() {
        return sets().sureness;
    }

    private Standing atOwn(Sets of, int unit) {
        // The row of targets tells whom a device target holds; following the user it leaves the reach to be asked.
        if (assignment.follows() == Follows.USER && !of.reach.contains(unit)) {
            return Standing.NO_CANDIDATE;
        }
        for (int i = 0; i < of.gates.size(); i++) {
            if (!of.gates.get(i).passes(unit)) {
                return Standing.NO_CANDIDATE;
            }
        }
        return of.waves == null || of.waves.isOpen(unit) ? Standing.CANDIDATE : Standing.LATER;
    }

    private static Positions through(Sets of) {
        Positions passing = of.reach;
        for (int i = 0; i < of.gates.size() && !passing.isEmpty(); i++) {
            passing = of.gates.get(i).pass(passing);
        }
        return passing;
    }

    private static Split split(Sets of, Positions passing) {
        if (of.waves == null || passing.isEmpty()) {
            return new Split(passing, Positions.NONE);
        }
        Positions open = of.waves.open(passing);
        return new Split(open, passing.without(open));
    }

    /**
     * The own units of one unit of the title: itself, or following the user onto a device one for each of its people.
     * With {@link #reaches}, {@link #gates} and {@link #waves} they tell what became of the pair there.
     */
    public Positions ownUnits(int unit) {
        return sets().own == scope ? Positions.range(unit, unit + 1)
                : Positions.range(units.from(unit), units.to(unit));
    }

    /** The scope of the own units. */
    public Scope ownScope() {
        return sets().own;
    }

    /** Those of the own units that the target holds. */
    public Positions reaches(Positions ownUnits) {
        return ownUnits.and(sets().reach);
    }

    /** In the order in which they are asked. */
    public List<Gate> gates() {
        return sets().gates;
    }

    public @Nullable Waves waves() {
        return sets().waves;
    }

    /** Whether it holds exactly where the other does, which is of the same assignment in another state of the estate. */
    public boolean holdsWhere(Pair other) {
        return this == other || target.equals(other.target) && anywhere().equals(other.anywhere());
    }

    /**
     * This pair in other audiences in which everyone stands as in its own: itself, where all that it looks at is the same.
     */
    public Pair in(Audiences other, Audiences own) {
        boolean same = assignment.waves().isEmpty() && other.isSame(target, own)
                && (assignment.within() == null || other.isSame(assignment.within(), own))
                && assignment.exclude().stream().allMatch(excluded -> other.isSame(excluded, own));
        if (!same) {
            return new Pair(other, assignment, target, scope);
        }
        synchronized (this) {
            // Both come to the same, and the older need not be kept for this pair.
            audiences = audiences == null ? null : other;
        }
        return this;
    }
}
