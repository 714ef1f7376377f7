package rivo.core.resolve;

import org.jspecify.annotations.Nullable;

/** The needs of a title that is required and has its seat (section 7, step 2), at one unit. Of one thread. */
final class UnitNeeds {

    private final UnitTitles titles;
    /** What is being pulled in for the title whose turn it is, and what is held for it, one after the other. */
    private int[] pulling = {};
    private boolean[] isPulling = {};
    private int pullingCount;
    private int[] held = {};
    private int heldCount;

    /** The first need that is not met: by whom, as {@link UnitTitles#giveWay} says, and why not. */
    record Failing(int by, Reason reason) {
    }

    UnitNeeds(UnitTitles titles) {
        this.titles = titles;
    }

    /** Accepts a title, with all that its needs take, where they are met; what blocks it, where they are not. */
    @Nullable Failing accept(int t) {
        makeRoom(titles.family().titles().size());
        pullingCount = 0;
        heldCount = 0;
        for (Family.LocalNeed need : titles.family().needs(titles.release(t))) {
            if (!isMet(t, need)) {
                Failing failing = need.title() < 0 ? new Failing(-1 - need.deviceNeed(), Reason.NEEDS_DEVICE) : new Failing(need.title(), whyNot(t, need));
                takeBack(0, 0);
                return failing;
            }
        }
        titles.come(t, Settlement.NOBODY);
        for (int i = 0; i < pullingCount; i++) {
            isPulling[pulling[i]] = false;
            titles.come(pulling[i], t);
        }
        return null;
    }

    private void makeRoom(int most) {
        if (most > pulling.length) {
            pulling = new int[most];
            isPulling = new boolean[most];
            held = new int[most];
        }
    }

    /** Undoes what was pulled in or held on the way beyond so many. */
    private void takeBack(int pulled, int beyond) {
        while (pullingCount > pulled) {
            isPulling[pulling[--pullingCount]] = false;
        }
        titles.letGo(held, beyond, heldCount);
        heldCount = beyond;
    }

    private boolean isMet(int t, Family.LocalNeed need) {
        int n = need.title();
        if (n < 0) {
            return titles.meets(need.deviceNeed());
        }
        return (titles.comes(n) || isPulling[n]) && titles.family().meets(titles.release(n), need) || pullIn(t, need) || asItIs(t, need);
    }

    private boolean pullIn(int t, Family.LocalNeed need) {
        int n = need.title();
        Family family = titles.family();
        boolean own = titles.is(n, Outcome.REQUIRED);
        boolean available = titles.is(n, Outcome.AVAILABLE);
        boolean may = own || !family.hasSeats(n) && (available || titles.base(n) == null);
        boolean free = !titles.isDecided(n) || available && titles.isKept(n);
        if (!may || !free || isPulling[n] || !family.meets(titles.release(n), need) || isOpposed(n, t)) {
            return false;
        }
        int pulled = pullingCount;
        int before = heldCount;
        pulling[pullingCount++] = n;
        isPulling[n] = true;
        for (Family.LocalNeed further : family.needs(titles.release(n))) {
            if (!isMet(t, further)) {
                takeBack(pulled, before);
                return false;
            }
        }
        return true;
    }

    /** Whether something that stands, or {@code t}, or what is being pulled in for it, stands against {@code n}. */
    private boolean isOpposed(int n, int t) {
        for (int s : titles.family().neighbours(n)) {
            if ((s == t || titles.stands(s) || isPulling[s]) && titles.against(s, n)) {
                return true;
            }
        }
        return false;
    }

    private boolean asItIs(int t, Family.LocalNeed need) {
        int n = need.title();
        if (!titles.isPresentFor(need)) {
            return false;
        }
        if (titles.stands(n) && !titles.comes(n)) {
            return true;
        }
        if (titles.isDecided(n) || isPulling[n] || titles.is(n, Outcome.UNINSTALL) || titles.is(n, Outcome.REQUIRED) || isOpposed(n, t)) {
            return false;
        }
        titles.hold(n);
        held[heldCount++] = n;
        return true;
    }

    /** The first reason that applies to a need that is not met. */
    private Reason whyNot(int t, Family.LocalNeed need) {
        int n = need.title();
        BaseOutcome own = titles.base(n);
        Reason reason = own == null ? null : Needs.ofBase(own.outcome());
        if (reason != null) {
            return reason;
        }
        if (own == null && titles.choice(n) == null) {
            return Reason.NEEDS_UNFIT;
        }
        if (titles.family().hasSeats(n) && !titles.is(n, Outcome.REQUIRED)) {
            return Reason.NEEDS_SEAT;
        }
        // What replaced or displaced it before still stands.
        if (isReplaced(n, t)) {
            return Reason.NEEDS_REPLACED;
        }
        if (isOpposed(n, t)) {
            return Reason.NEEDS_DISPLACED;
        }
        return titles.family().meets(titles.release(n), need) ? Reason.NEEDS_BLOCKED : Reason.NEEDS_NEWER;
    }

    private boolean isReplaced(int n, int t) {
        for (int s : titles.family().neighbours(n)) {
            if ((s == t || isPulling[s] || titles.comes(s)) && titles.replaces(s, n)) {
                return true;
            }
        }
        return false;
    }
}
