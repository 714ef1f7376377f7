package rivo.core.resolve;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is known and decided of the titles of one family at one unit, while they are settled there ({@link UnitSettlement}). Titles go by their places in the
 * family. Its memory is used again for the next family or unit. Of one thread.
 */
final class UnitTitles {

    /** What else can be asked of the unit. */
    interface Outside {

        /** The newest release that fits, of a title without a base outcome; null when none does. */
        @Nullable Choice newest(int title);

        /** Whether the device meets the need of this place in {@link Family#deviceNeeds}. */
        boolean meets(int deviceNeed);
    }

    private static final int NOT_PRESENT = -1;
    private static final int NOT_STANDING = 0;
    private static final int NOT_LOOKED_AT = -2;

    private @Nullable Family family;
    private @Nullable Outside outside;

    /** Those of which something was said or decided: what is kept of all others is as at the beginning. */
    private int[] touched = {};
    private boolean[] isTouched = {};
    private int touchedCount;

    private @Nullable BaseOutcome[] base = {};
    /** How many of the versions that are asked of it the present one reaches. */
    private int[] reached = {};
    /** The number of the release that counts: the chosen one, or the newest that fits for a title without a base outcome. */
    private int[] release = {};
    private @Nullable Choice[] newest = {};
    private boolean[] decided = {};
    /** What relations make of it, and by whom; null where it comes to what it is by itself. */
    private Settlement.@Nullable State[] state = {};
    private int[] by = {};
    private @Nullable Reason[] reason = {};
    /** When it began to stand, counted on. */
    private int[] standing = {};
    /** Whether it is accepted or implied. */
    private boolean[] comes = {};
    private int clock;

    /** Forgets everything, for a family at a unit. */
    void begin(Family next, Outside of) {
        for (int i = 0; i < touchedCount; i++) {
            forget(touched[i]);
        }
        touchedCount = 0;
        clock = NOT_STANDING;
        family = next;
        outside = of;
        if (next.titles().size() > touched.length) {
            makeRoom(next.titles().size());
        }
    }

    private void forget(int t) {
        isTouched[t] = false;
        base[t] = null;
        reached[t] = NOT_PRESENT;
        release[t] = NOT_LOOKED_AT;
        newest[t] = null;
        decided[t] = false;
        state[t] = null;
        reason[t] = null;
        standing[t] = NOT_STANDING;
        comes[t] = false;
    }

    private void makeRoom(int titles) {
        touched = new int[titles];
        isTouched = new boolean[titles];
        base = new BaseOutcome[titles];
        reached = new int[titles];
        release = new int[titles];
        newest = new Choice[titles];
        decided = new boolean[titles];
        state = new Settlement.State[titles];
        by = new int[titles];
        reason = new Reason[titles];
        standing = new int[titles];
        comes = new boolean[titles];
        Arrays.fill(reached, NOT_PRESENT);
        Arrays.fill(release, NOT_LOOKED_AT);
    }

    Family family() {
        return Objects.requireNonNull(family, "it begins with a family");
    }

    private Outside outside() {
        return Objects.requireNonNull(outside, "it begins with a unit");
    }

    private void touch(int t) {
        if (!isTouched[t]) {
            isTouched[t] = true;
            touched[touchedCount++] = t;
        }
    }

    /** How many titles something was said of or decided for; each of them is {@link #touched}. */
    int touchedCount() {
        return touchedCount;
    }

    int touched(int i) {
        return touched[i];
    }

    void assigned(int t, BaseOutcome own) {
        touch(t);
        base[t] = own;
        release[t] = family().number(t, own.choice());
    }

    /** @param versions how many of the versions that are asked of it the present one reaches, as {@link Family#reached} counts */
    void present(int t, int versions) {
        touch(t);
        reached[t] = versions;
    }

    boolean isTouched(int t) {
        return isTouched[t];
    }

    @Nullable BaseOutcome base(int t) {
        return base[t];
    }

    /** Whether this is its base outcome. */
    boolean is(int t, Outcome outcome) {
        BaseOutcome own = base[t];
        return own != null && own.outcome() == outcome;
    }

    boolean isPresent(int t) {
        return reached[t] != NOT_PRESENT;
    }

    /** Whether it is present in a version that meets the need. */
    boolean isPresentFor(Family.LocalNeed need) {
        return isPresent(need.title()) && reached[need.title()] >= need.reaches();
    }

    /** The release that counts, by its number. */
    int release(int t) {
        if (release[t] == NOT_LOOKED_AT) {
            touch(t);
            newest[t] = outside().newest(t);
            release[t] = family().number(t, newest[t]);
        }
        return release[t];
    }

    /** What it gets: what was chosen, or the newest that fits where it has no base outcome. */
    @Nullable Choice choice(int t) {
        BaseOutcome own = base[t];
        if (own == null) {
            release(t);
            return newest[t];
        }
        return own.choice();
    }

    boolean meets(int deviceNeed) {
        return deviceNeed >= 0 && outside().meets(deviceNeed);
    }

    /** Whether the release of one, as it counts here, replaces the other. */
    boolean replaces(int one, int other) {
        return family().mayReplace(one, other) && family().replaces(release(one), other);
    }

    /** Whether two that may stand against each other do. */
    boolean against(int one, int other) {
        return family().conflict(one, other) || replaces(one, other) || replaces(other, one);
    }

    boolean isDecided(int t) {
        return decided[t];
    }

    boolean stands(int t) {
        return standing[t] != NOT_STANDING;
    }

    boolean comes(int t) {
        return comes[t];
    }

    /** Whether it came to its base outcome, or stays as it is; not what comes. */
    boolean isKept(int t) {
        return decided[t] && !comes[t] && (state[t] == null || state[t] == Settlement.State.KEPT);
    }

    /** The one that stood first; either may be -1, for none. */
    int earlier(int one, int other) {
        return one < 0 || other >= 0 && standing[other] < standing[one] ? other : one;
    }

    void stand(int t) {
        standing[t] = ++clock;
    }

    /** It comes to what it is by itself. */
    void keep(int t) {
        decided[t] = true;
    }

    /** It is accepted, or implied by another. */
    void come(int t, int who) {
        decided[t] = true;
        comes[t] = true;
        state[t] = is(t, Outcome.REQUIRED) ? null : Settlement.State.IMPLIED;
        by[t] = who;
        stand(t);
    }

    /** It stays as it is, since something needs it. */
    void hold(int t) {
        decided[t] = true;
        state[t] = base[t] == null ? Settlement.State.KEPT : null;
        stand(t);
    }

    /** Takes back that it was held. */
    void letGo(int[] held, int from, int to) {
        for (int i = from; i < to; i++) {
            decided[held[i]] = false;
            state[held[i]] = null;
            standing[held[i]] = NOT_STANDING;
        }
    }

    /** @param who a place in the family; below zero one in {@link Family#deviceNeeds}, counted from -1 down */
    void giveWay(int t, Settlement.State to, int who, @Nullable Reason why) {
        decided[t] = true;
        state[t] = to;
        by[t] = who;
        reason[t] = why;
    }

    /** What it comes to; null where it has no outcome, {@link Settlement#STAYS} where it is held without one. */
    @Nullable Decision decision(int t) {
        BaseOutcome own = base[t];
        Settlement.State to = state[t];
        if (to == null) {
            return own == null ? null : own.decision();
        }
        Choice implied = to == Settlement.State.IMPLIED ? choice(t) : null;
        return Settlement.decision(to, own == null ? List.of() : own.deciding(), implied, family(), by[t], reason[t]);
    }
}
