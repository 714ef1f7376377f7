package rivo.core.resolve;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;

/**
 * Settles the titles of one family at one unit after the other against each other (sections 7 and 8 of the resolution rules), step by
 * step as they are written. Titles go by their places in the family. A unit costs what is there: titles that nobody assigned and that are not
 * present are looked at only where something needs them. Used by one thread.
 *
 * <p><b>Standing:</b> the titles accepted, implied and held so far, the one decided first in front.
 * <p><b>Pulling:</b> the titles being pulled in for the one whose turn it is.
 */
final class Settlement {

    /** What else can be asked of the unit. */
    interface Unit {

        /** The newest release that fits, of a title without a base outcome; null when none does. */
        @Nullable Choice newest(int title);

        /** Whether the device meets the need of this place in {@link Family#deviceNeeds}. */
        boolean meets(int deviceNeed);
    }

    /** What has been decided for a title. */
    enum State {
        OPEN, ACCEPTED, IMPLIED, REPLACED, DISPLACED, BLOCKED, KEPT
    }

    /** Stands for a title without any outcome that stays because it meets a need. */
    static final Decision STAYS = new Decision(Outcome.LATER, null, null, List.of(), null);

    private static final int NOT_PRESENT = -1;
    private static final int NOT_STANDING = 0;
    private static final int NOT_LOOKED_AT = -2;

    private final Family family;
    private @Nullable Unit unit;

    /** Those of which something was said or decided at this unit. */
    private final int[] touched;
    private final boolean[] isTouched;
    private int touchedCount;

    private final @Nullable BaseOutcome[] base;
    /** That of the base outcome, which is asked for more often. */
    private final @Nullable Outcome[] outcome;
    /** The place of the base outcome among those of the unit, the strongest and of level ones the oldest first; and its level. */
    private final int[] place;
    private final int[] level;
    private final int[] reached;
    /** The number of the release that counts: the chosen one, or the newest that fits for a title without a base outcome. */
    private final int[] release;
    private final @Nullable Choice[] newest;

    private final State[] states;
    private final int[] by;
    private final @Nullable Reason[] reasons;
    /** When it began to stand, counted on; {@link #NOT_STANDING} for those that do not. */
    private final int[] standing;
    private int clock;
    private final int[] pulling;
    private final boolean[] isPulling;
    private int pullingCount;
    /** Those decided as they are while the needs of one title are looked at. */
    private final int[] onTheWay;
    private int onTheWayCount;
    private final long[] turns;
    /** Of level ones: how many others of the level replace it; -1 for what is on no level that is being ordered. */
    private final int[] replacing;

    Settlement(Family family) {
        this.family = family;
        int n = family.titles().size();
        this.touched = new int[n];
        this.isTouched = new boolean[n];
        this.base = new BaseOutcome[n];
        this.outcome = new Outcome[n];
        this.place = new int[n];
        this.level = new int[n];
        this.reached = new int[n];
        this.release = new int[n];
        this.newest = new Choice[n];
        this.states = new State[n];
        this.by = new int[n];
        this.reasons = new Reason[n];
        this.standing = new int[n];
        this.pulling = new int[n];
        this.isPulling = new boolean[n];
        this.onTheWay = new int[n];
        this.turns = new long[n];
        this.replacing = new int[n];
        Arrays.fill(reached, NOT_PRESENT);
        Arrays.fill(release, NOT_LOOKED_AT);
        Arrays.fill(states, State.OPEN);
        Arrays.fill(replacing, -1);
    }

    /** Forgets the last unit. */
    void begin(Unit next) {
        unit = next;
        for (int i = 0; i < touchedCount; i++) {
            int t = touched[i];
            isTouched[t] = false;
            base[t] = null;
            outcome[t] = null;
            reached[t] = NOT_PRESENT;
            release[t] = NOT_LOOKED_AT;
            newest[t] = null;
            states[t] = State.OPEN;
            reasons[t] = null;
            standing[t] = NOT_STANDING;
        }
        touchedCount = 0;
        clock = 0;
    }

    private Unit unit() {
        return Objects.requireNonNull(unit, "settling begins with begin");
    }

    private void touch(int t) {
        if (!isTouched[t]) {
            isTouched[t] = true;
            touched[touchedCount++] = t;
        }
    }

    /**
     * The title has a base outcome here.
     *
     * @param ofOwn its outcome
     * @param where its place in the order of {@link BaseOutcome#STRONGEST_THEN_OLDEST}, level and equally old ones perhaps alike
     * @param rank the same for level ones, and for no others
     * @param number of its release in the family
     */
    void assigned(int t, BaseOutcome own, Outcome ofOwn, int where, int rank, int number) {
        touch(t);
        base[t] = own;
        outcome[t] = ofOwn;
        place[t] = where;
        level[t] = rank;
        release[t] = number;
    }

    /** @param versions how many of the versions that are asked of it the present one reaches, as {@link Family#reached} counts */
    void present(int t, int versions) {
        touch(t);
        reached[t] = versions;
    }

    /** How many titles something was said of or decided for; each of them is {@link #touched}. */
    int touchedCount() {
        return touchedCount;
    }

    int touched(int i) {
        return touched[i];
    }

    void settle() {
        int count = order();
        for (int i = 0; i < count; i++) {
            int t = (int) turns[i];
            if (states[t] == State.OPEN) {
                turn(t);
            }
        }
        for (int i = 0; i < touchedCount; i++) {
            int t = touched[i];
            if (states[t] == State.OPEN && base[t] == null && isPresent(t)) {
                leaveBehind(t);
            }
        }
    }

    /** The strongest winner first; level ones by taking, again and again, one that none of the rest replaces. */
    private int order() {
        int count = 0;
        for (int i = 0; i < touchedCount; i++) {
            int t = touched[i];
            if (base[t] != null && !is(t, Outcome.UNINSTALL)) {
                turns[count++] = (long) place[t] << 32 | t;
            }
        }
        Arrays.sort(turns, 0, count);
        for (int from = 0; from < count;) {
            int to = from + 1;
            while (to < count && level[(int) turns[to]] == level[(int) turns[from]]) {
                to++;
            }
            if (to > from + 1) {
                level(from, to);
            }
            from = to;
        }
        return count;
    }

    /** Whatever none of the rest replaces comes first. */
    private void level(int from, int to) {
        boolean anyReplaced = false;
        for (int i = from; i < to; i++) {
            replacing[(int) turns[i]] = 0;
        }
        for (int i = from; i < to; i++) {
            int t = (int) turns[i];
            for (int other : family.neighbours(t)) {
                if (replacing[other] >= 0 && replaces(other, t)) {
                    replacing[t]++;
                    anyReplaced = true;
                }
            }
        }
        if (anyReplaced) {
            take(from, to);
        }
        for (int i = from; i < to; i++) {
            replacing[(int) turns[i]] = -1;
        }
    }

    private void take(int from, int to) {
        for (int at = from; at < to; at++) {
            int next = at;
            while (next < to && replacing[(int) turns[next]] > 0) {
                next++;
            }
            next = next == to ? at : next;
            long taken = turns[next];
            System.arraycopy(turns, at, turns, at + 1, next - at);
            turns[at] = taken;
            int t = (int) taken;
            replacing[t] = -1;
            for (int other : family.neighbours(t)) {
                if (replacing[other] > 0 && replaces(t, other)) {
                    replacing[other]--;
                }
            }
        }
    }

    private boolean is(int t, Outcome wanted) {
        return outcome[t] == wanted;
    }

    private boolean isPresent(int t) {
        return reached[t] != NOT_PRESENT;
    }

    /** The release that counts, by its number. */
    private int release(int t) {
        if (release[t] == NOT_LOOKED_AT) {
            touch(t);
            newest[t] = unit().newest(t);
            release[t] = family.number(t, newest[t]);
        }
        return release[t];
    }

    /** What the title gets: what was chosen, or the newest that fits where it has no base outcome. */
    @Nullable Choice choice(int t) {
        BaseOutcome own = base[t];
        if (own == null) {
            release(t);
            return newest[t];
        }
        return own.choice();
    }

    /** Whether the release of one, as it counts here, replaces the other. */
    private boolean replaces(int one, int other) {
        return one != other && family.replaces(release(one), other);
    }

    private boolean against(int one, int other) {
        return one != other && (family.conflict(one, other) || replaces(one, other) || replaces(other, one));
    }

    private void turn(int t) {
        int against = -1;
        int replacedBy = -1;
        for (int s : family.neighbours(t)) {
            if (standing[s] != NOT_STANDING && against(s, t)) {
                against = earlier(against, s);
                replacedBy = comes(s) && replaces(s, t) ? earlier(replacedBy, s) : replacedBy;
            }
        }
        if (against >= 0) {
            states[t] = replacedBy >= 0 ? State.REPLACED : State.DISPLACED;
            by[t] = replacedBy >= 0 ? replacedBy : against;
            return;
        }
        if (is(t, Outcome.REQUIRED) && accept(t)) {
            return;
        }
        if (states[t] == State.OPEN) {
            states[t] = State.KEPT;
        }
        if (isPresent(t)) {
            stand(t);
        }
    }

    /** The one that stood first; either may be -1, for none. */
    private int earlier(int one, int other) {
        return one < 0 || standing[other] < standing[one] ? other : one;
    }

    private void stand(int t) {
        standing[t] = ++clock;
    }

    /** Whether it is accepted or implied. */
    private boolean comes(int t) {
        return states[t] == State.ACCEPTED || states[t] == State.IMPLIED;
    }

    /** Looks at the needs; blocks the title by the first that is not met. */
    private boolean accept(int t) {
        pullingCount = 0;
        onTheWayCount = 0;
        for (Family.LocalNeed need : family.needs(release(t))) {
            boolean met = need.title() < 0 ? need.deviceNeed() >= 0 && unit().meets(need.deviceNeed()) : meet(t, need);
            if (!met) {
                reasons[t] = need.title() < 0 ? Reason.NEEDS_DEVICE : whyNot(t, need);
                by[t] = need.title() < 0 ? -1 - need.deviceNeed() : need.title();
                giveBack(0, 0);
                states[t] = State.BLOCKED;
                return false;
            }
        }
        states[t] = State.ACCEPTED;
        stand(t);
        for (int i = 0; i < pullingCount; i++) {
            int pulled = pulling[i];
            isPulling[pulled] = false;
            states[pulled] = is(pulled, Outcome.REQUIRED) ? State.ACCEPTED : State.IMPLIED;
            by[pulled] = t;
            stand(pulled);
        }
        return true;
    }

    /** Undoes what was pulled in or decided on the way beyond so many. */
    private void giveBack(int pulled, int decided) {
        while (pullingCount > pulled) {
            isPulling[pulling[--pullingCount]] = false;
        }
        while (onTheWayCount > decided) {
            int held = onTheWay[--onTheWayCount];
            states[held] = State.OPEN;
            standing[held] = NOT_STANDING;
        }
    }

    private boolean meet(int t, Family.LocalNeed need) {
        int n = need.title();
        return (comes(n) || isPulling[n]) && family.meets(release(n), need) || pullIn(t, need) || asItIs(t, need);
    }

    private boolean pullIn(int t, Family.LocalNeed need) {
        int n = need.title();
        boolean free = states[n] == State.OPEN || states[n] == State.KEPT && is(n, Outcome.AVAILABLE);
        boolean own = is(n, Outcome.REQUIRED);
        boolean may = own || base[n] == null || is(n, Outcome.AVAILABLE);
        if (!free || isPulling[n] || !may || !own && family.hasSeats(n)
                || !family.meets(release(n), need) || isOpposed(n, t)) {
            return false;
        }
        int pulled = pullingCount;
        int decided = onTheWayCount;
        touch(n);
        pulling[pullingCount++] = n;
        isPulling[n] = true;
        for (Family.LocalNeed further : family.needs(release(n))) {
            boolean met = further.title() < 0 ? unit().meets(further.deviceNeed()) : meet(t, further);
            if (!met) {
                giveBack(pulled, decided);
                return false;
            }
        }
        return true;
    }

    /** Whether something that stands, or {@code t}, or what is being pulled in for it, stands against {@code n}. */
    private boolean isOpposed(int n, int t) {
        for (int s : family.neighbours(n)) {
            if ((s == t || standing[s] != NOT_STANDING || isPulling[s]) && against(s, n)) {
                return true;
            }
        }
        return false;
    }

    private boolean asItIs(int t, Family.LocalNeed need) {
        int n = need.title();
        if (!isPresent(n) || reached[n] < need.reaches()) {
            return false;
        }
        if (standing[n] != NOT_STANDING && !comes(n)) {
            return true;
        }
        if (states[n] != State.OPEN || isPulling[n] || is(n, Outcome.UNINSTALL) || is(n, Outcome.REQUIRED) || isOpposed(n, t)) {
            return false;
        }
        states[n] = State.KEPT;
        stand(n);
        onTheWay[onTheWayCount++] = n;
        return true;
    }

    /** The first reason that applies to a need that is not met. */
    private Reason whyNot(int t, Family.LocalNeed need) {
        int n = need.title();
        BaseOutcome own = base[n];
        if (own != null) {
            Reason reason = ofBase(own.outcome());
            if (reason != null) {
                return reason;
            }
        } else if (choice(n) == null) {
            return Reason.NEEDS_UNFIT;
        }
        if (family.hasSeats(n) && !is(n, Outcome.REQUIRED)) {
            return Reason.NEEDS_SEAT;
        }
        if (states[n] == State.REPLACED || isReplaced(n, t)) {
            return Reason.NEEDS_REPLACED;
        }
        if (states[n] == State.DISPLACED || isOpposed(n, t)) {
            return Reason.NEEDS_DISPLACED;
        }
        return family.meets(release(n), need) ? Reason.NEEDS_BLOCKED : Reason.NEEDS_NEWER;
    }

    private boolean isReplaced(int n, int t) {
        for (int s : family.neighbours(n)) {
            if ((s == t || isPulling[s] || standing[s] != NOT_STANDING && comes(s)) && replaces(s, n)) {
                return true;
            }
        }
        return false;
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

    /** Whether it has a base outcome here. */
    boolean isAssigned(int t) {
        return base[t] != null;
    }

    /** Whether the title comes to its base outcome, or to nothing where it has none: its relations change nothing. */
    boolean isByItself(int t) {
        return switch (states[t]) {
            case ACCEPTED -> true;
            case KEPT -> base[t] != null;
            case OPEN -> true;
            case IMPLIED, REPLACED, DISPLACED, BLOCKED -> false;
        };
    }

    State state(int t) {
        return states[t];
    }

    /** Who made it so; -1 where nobody did. */
    int by(int t) {
        return states[t] == State.KEPT ? -1 : by[t];
    }

    @Nullable Reason reason(int t) {
        return reasons[t];
    }

    /** What a title comes to; null where it has no outcome, {@link #STAYS} where it is held without one. */
    @Nullable Decision decision(int t) {
        BaseOutcome own = base[t];
        List<Assignment> deciding = own == null ? List.of() : own.deciding();
        return switch (states[t]) {
            case ACCEPTED -> Objects.requireNonNull(own).decision();
            case IMPLIED -> new Decision(Outcome.REQUIRED, Reason.IMPLIED, choice(t), deciding, id(by[t]));
            case REPLACED -> new Decision(Outcome.REPLACED, null, null, deciding, id(by[t]));
            case DISPLACED -> new Decision(Outcome.DISPLACED, null, null, deciding, id(by[t]));
            case BLOCKED -> new Decision(Outcome.BLOCKED, reasons[t], null, deciding, id(by[t]));
            case KEPT -> own == null ? STAYS : own.decision();
            case OPEN -> own == null ? null : own.decision();
        };
    }

    /** What is present, and nobody's, gives way to what comes (section 8, rules 1 and 2): to the first that replaces it, else that conflicts. */
    private void leaveBehind(int t) {
        int replacedBy = -1;
        int conflicting = -1;
        for (int s : family.neighbours(t)) {
            if (standing[s] != NOT_STANDING && comes(s)) {
                replacedBy = replaces(s, t) ? earlier(replacedBy, s) : replacedBy;
                conflicting = family.conflict(s, t) ? earlier(conflicting, s) : conflicting;
            }
        }
        if (replacedBy >= 0 || conflicting >= 0) {
            states[t] = replacedBy >= 0 ? State.REPLACED : State.DISPLACED;
            by[t] = replacedBy >= 0 ? replacedBy : conflicting;
        }
    }

    private String id(int who) {
        return who >= 0 ? family.titles().get(who).id() : family.deviceNeeds().get(-1 - who).title();
    }
}
