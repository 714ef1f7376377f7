package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Need;

/**
 * Settles the titles of one family at one unit against each other (sections 7 and 8 of the resolution rules), step by
 * step as they are written. Titles go by their places in the family. Used once, by one thread.
 *
 * <p><b>Standing:</b> the titles accepted, implied and held so far, the one decided first in front.
 * <p><b>Pulling:</b> the titles being pulled in for the one whose turn it is.
 */
final class Settlement {

    /** What has been decided for a title. */
    private enum State {
        OPEN, ACCEPTED, IMPLIED, REPLACED, DISPLACED, BLOCKED, KEPT
    }

    /** Stands for a title without any outcome that stays because it meets a need. */
    static final Decision STAYS = new Decision(Outcome.LATER, null, null, List.of(), null);

    private final Family family;
    private final TitleAtUnit[] at;
    private final IntPredicate deviceNeedMet;
    private final State[] states;
    private final int[] by;
    private final @Nullable Reason[] reasons;
    private final List<Integer> standing = new ArrayList<>();
    private final List<Integer> pulling = new ArrayList<>();
    /** Those decided as they are while the needs of one title are looked at. */
    private final List<Integer> onTheWay = new ArrayList<>();

    /** @param deviceNeedMet whether the device meets the need of this place in {@link Family#deviceNeeds} */
    Settlement(Family family, TitleAtUnit[] at, IntPredicate deviceNeedMet) {
        this.family = family;
        this.at = at;
        this.deviceNeedMet = deviceNeedMet;
        this.states = new State[at.length];
        java.util.Arrays.fill(states, State.OPEN);
        this.by = new int[at.length];
        this.reasons = new Reason[at.length];
    }

    /** For each title its decision; null where it has none, {@link #STAYS} where it is held without one. */
    @Nullable Decision[] settle() {
        for (int t : order()) {
            if (states[t] == State.OPEN) {
                turn(t);
            }
        }
        Decision[] decisions = new Decision[at.length];
        for (int t = 0; t < at.length; t++) {
            decisions[t] = decision(t);
        }
        return decisions;
    }

    /** The strongest winner first; level ones by taking, again and again, one that none of the rest replaces. */
    private List<Integer> order() {
        List<Integer> open = new ArrayList<>();
        for (int t = 0; t < at.length; t++) {
            if (at[t].base() != null && !at[t].is(Outcome.UNINSTALL)) {
                open.add(t);
            }
        }
        open.sort(Comparator.comparing(this::rank));
        List<Integer> order = new ArrayList<>(open.size());
        for (int from = 0; from < open.size();) {
            int to = from + 1;
            while (to < open.size() && rank(open.get(to)).compareTo(rank(open.get(from))) == 0) {
                to++;
            }
            if (to == from + 1) {
                order.add(open.get(from));
            } else {
                take(new ArrayList<>(open.subList(from, to)), order);
            }
            from = to;
        }
        return order;
    }

    private Rank rank(int t) {
        return Objects.requireNonNull(at[t].base()).rank();
    }

    private void take(List<Integer> level, List<Integer> order) {
        level.sort(Comparator.<Integer>comparingLong(t -> Objects.requireNonNull(at[t].base()).seq())
                .thenComparing(t -> t));
        while (!level.isEmpty()) {
            Integer next = level.stream().filter(t -> level.stream().noneMatch(other -> replaces(other, t))).findFirst()
                    .orElse(level.get(0));
            level.remove(next);
            order.add(next);
        }
    }

    /** Whether the release of one, as it counts here, replaces the other. */
    private boolean replaces(int one, int other) {
        Choice choice = at[one].choice();
        return one != other && choice != null && family.replaces(choice.release(), other);
    }

    private boolean against(int one, int other) {
        return one != other && (family.conflict(one, other) || replaces(one, other) || replaces(other, one));
    }

    private void turn(int t) {
        int against = firstStanding(s -> against(s, t));
        if (against >= 0) {
            int replacing = firstStanding(s -> comes(s) && replaces(s, t));
            states[t] = replacing >= 0 ? State.REPLACED : State.DISPLACED;
            by[t] = replacing >= 0 ? replacing : against;
            return;
        }
        if (at[t].is(Outcome.REQUIRED) && accept(t)) {
            return;
        }
        if (states[t] == State.OPEN) {
            states[t] = State.KEPT;
        }
        if (at[t].present()) {
            standing.add(t);
        }
    }

    private int firstStanding(IntPredicate test) {
        for (int i = 0; i < standing.size(); i++) {
            if (test.test(standing.get(i))) {
                return standing.get(i);
            }
        }
        return -1;
    }

    /** Whether it is accepted or implied. */
    private boolean comes(int t) {
        return states[t] == State.ACCEPTED || states[t] == State.IMPLIED;
    }

    /** Looks at the needs; blocks the title by the first that is not met. */
    private boolean accept(int t) {
        pulling.clear();
        onTheWay.clear();
        for (Family.LocalNeed need : family.needs(Objects.requireNonNull(at[t].choice()).release())) {
            boolean met = need.title() < 0 ? need.deviceNeed() >= 0 && deviceNeedMet.test(need.deviceNeed())
                    : meet(t, need);
            if (!met) {
                reasons[t] = need.title() < 0 ? Reason.NEEDS_DEVICE : whyNot(t, need);
                by[t] = need.title() < 0 ? -1 - need.deviceNeed() : need.title();
                giveBack(0, 0);
                states[t] = State.BLOCKED;
                return false;
            }
        }
        states[t] = State.ACCEPTED;
        standing.add(t);
        for (int pulled : pulling) {
            states[pulled] = at[pulled].is(Outcome.REQUIRED) ? State.ACCEPTED : State.IMPLIED;
            by[pulled] = t;
            standing.remove((Integer) pulled);
            standing.add(pulled);
        }
        return true;
    }

    /** Undoes what was pulled in or decided on the way beyond so many. */
    private void giveBack(int pulled, int decided) {
        while (pulling.size() > pulled) {
            pulling.remove(pulling.size() - 1);
        }
        while (onTheWay.size() > decided) {
            Integer held = onTheWay.remove(onTheWay.size() - 1);
            states[held] = State.OPEN;
            standing.remove(held);
        }
    }

    private boolean meet(int t, Family.LocalNeed need) {
        int n = need.title();
        return (comes(n) || pulling.contains(n)) && isMetBy(need.need(), at[n].choice()) || pullIn(t, need)
                || asItIs(t, need);
    }

    private static boolean isMetBy(Need need, @Nullable Choice choice) {
        return choice != null && need.isMetBy(choice.release().version());
    }

    private boolean pullIn(int t, Family.LocalNeed need) {
        int n = need.title();
        boolean free = states[n] == State.OPEN && !pulling.contains(n)
                || states[n] == State.KEPT && at[n].is(Outcome.AVAILABLE);
        boolean own = at[n].is(Outcome.REQUIRED);
        boolean may = own || at[n].base() == null || at[n].is(Outcome.AVAILABLE);
        if (!free || pulling.contains(n) || !may || !own && family.titles().get(n).seats() != null
                || !isMetBy(need.need(), at[n].choice()) || isOpposed(n, t)) {
            return false;
        }
        int pulled = pulling.size();
        int decided = onTheWay.size();
        pulling.add(n);
        for (Family.LocalNeed further : family.needs(Objects.requireNonNull(at[n].choice()).release())) {
            boolean met = further.title() < 0 ? deviceNeedMet.test(further.deviceNeed()) : meet(t, further);
            if (!met) {
                giveBack(pulled, decided);
                return false;
            }
        }
        return true;
    }

    /** Whether something that stands, or {@code t}, or what is being pulled in for it, stands against {@code n}. */
    private boolean isOpposed(int n, int t) {
        return against(t, n) || firstStanding(s -> against(s, n)) >= 0
                || pulling.stream().anyMatch(p -> against(p, n));
    }

    private boolean asItIs(int t, Family.LocalNeed need) {
        int n = need.title();
        if (!at[n].present() || at[n].reached() < family.toReach(n, need.need())) {
            return false;
        }
        if (standing.contains(n) && !comes(n)) {
            return true;
        }
        if (states[n] != State.OPEN || pulling.contains(n) || at[n].is(Outcome.UNINSTALL)
                || at[n].is(Outcome.REQUIRED) || isOpposed(n, t)) {
            return false;
        }
        states[n] = State.KEPT;
        standing.add(n);
        onTheWay.add(n);
        return true;
    }

    /** The first reason that applies to a need that is not met. */
    private Reason whyNot(int t, Family.LocalNeed need) {
        int n = need.title();
        BaseOutcome base = at[n].base();
        if (base != null) {
            Reason reason = ofBase(base.outcome());
            if (reason != null) {
                return reason;
            }
        } else if (at[n].newest() == null) {
            return Reason.NEEDS_UNFIT;
        }
        if (family.titles().get(n).seats() != null && !at[n].is(Outcome.REQUIRED)) {
            return Reason.NEEDS_SEAT;
        }
        if (states[n] == State.REPLACED || replaces(t, n) || pulling.stream().anyMatch(p -> replaces(p, n))
                || firstStanding(s -> comes(s) && replaces(s, n)) >= 0) {
            return Reason.NEEDS_REPLACED;
        }
        if (states[n] == State.DISPLACED || isOpposed(n, t)) {
            return Reason.NEEDS_DISPLACED;
        }
        return isMetBy(need.need(), at[n].choice()) ? Reason.NEEDS_BLOCKED : Reason.NEEDS_NEWER;
    }

    private static @Nullable Reason ofBase(Outcome outcome) {
        return switch (outcome) {
            case UNINSTALL -> Reason.NEEDS_REMOVED;
            case CONTESTED -> Reason.NEEDS_CONTESTED;
            case LATER -> Reason.NEEDS_LATER;
            case UNFIT, BLOCKED -> Reason.NEEDS_UNFIT;
            case WAITING -> Reason.NEEDS_SEAT;
            case REQUIRED, AVAILABLE, REPLACED, DISPLACED -> null;
        };
    }

    private @Nullable Decision decision(int t) {
        BaseOutcome base = at[t].base();
        List<Assignment> deciding = base == null ? List.of() : base.deciding();
        return switch (states[t]) {
            case ACCEPTED -> Objects.requireNonNull(base).decision();
            case IMPLIED -> new Decision(Outcome.REQUIRED, Reason.IMPLIED, at[t].choice(), deciding, id(by[t]));
            case REPLACED -> new Decision(Outcome.REPLACED, null, null, deciding, id(by[t]));
            case DISPLACED -> new Decision(Outcome.DISPLACED, null, null, deciding, id(by[t]));
            case BLOCKED -> new Decision(Outcome.BLOCKED, reasons[t], null, deciding, id(by[t]));
            case KEPT -> base == null ? STAYS : base.decision();
            case OPEN -> base != null ? base.decision() : at[t].present() ? leftBehind(t) : null;
        };
    }

    /** What is present, and nobody's: it gives way to what comes (section 8, rules 1 and 2). */
    private @Nullable Decision leftBehind(int t) {
        int replacing = firstStanding(s -> comes(s) && replaces(s, t));
        int conflicting = firstStanding(s -> comes(s) && family.conflict(s, t));
        if (replacing < 0 && conflicting < 0) {
            return null;
        }
        return replacing >= 0 ? new Decision(Outcome.REPLACED, null, null, List.of(), id(replacing))
                : new Decision(Outcome.DISPLACED, null, null, List.of(), id(conflicting));
    }

    private String id(int by) {
        return by >= 0 ? family.titles().get(by).id() : family.deviceNeeds().get(-1 - by).title();
    }
}
