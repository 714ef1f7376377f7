package rivo.core.resolve;

import java.util.Arrays;
import java.util.Objects;

/**
 * Settles the titles of one family against each other at one unit (sections 7 and 8 of the resolution rules), step by step as they are written. What
 * {@link Settlement} says of many units at once, this says of one: a unit costs what is there. Used again for the next family or unit. Of one thread.
 */
final class UnitSettlement {

    private final UnitTitles titles = new UnitTitles();
    private final UnitNeeds needs = new UnitNeeds(titles);
    /** Those that have a turn, in the order of their turns. */
    private int[] turns = {};
    private int[] memory = {};
    /** Of level ones: how many others of the level that have not had their turn replace it; -1 for what is on no level that is being ordered. */
    private int[] replacing = {};

    /** What is known of the titles, to be told before they are settled. */
    UnitTitles titles() {
        return titles;
    }

    void settle() {
        Settlement.run(titles.family(), this::settleAll);
    }

    private void settleAll() {
        makeRoom(titles.family().titles().size());
        int count = order();
        for (int i = 0; i < count; i++) {
            if (!titles.isDecided(turns[i])) {
                turn(turns[i]);
            }
        }
        for (int i = 0; i < titles.touchedCount(); i++) {
            int t = titles.touched(i);
            if (titles.isPresent(t) && titles.base(t) == null && !titles.isDecided(t)) {
                leaveBehind(t);
            }
        }
    }

    private void makeRoom(int most) {
        if (most > turns.length) {
            turns = new int[most];
            memory = new int[most];
            replacing = new int[most];
            Arrays.fill(replacing, -1);
        }
    }

    /** The strongest winner first; level ones by taking, again and again, the first that none of the rest replaces. */
    private int order() {
        int count = 0;
        for (int i = 0; i < titles.touchedCount(); i++) {
            int t = titles.touched(i);
            if (titles.base(t) != null && !titles.is(t, Outcome.UNINSTALL)) {
                turns[count++] = t;
            }
        }
        TurnSort.sort(turns, count, memory, this::compare);
        for (int from = 0; from < count;) {
            int to = from + 1;
            while (to < count && base(turns[to]).strength() == base(turns[from]).strength()) {
                to++;
            }
            if (to > from + 1) {
                orderLevel(from, to);
            }
            from = to;
        }
        return count;
    }

    private BaseOutcome base(int t) {
        return Objects.requireNonNull(titles.base(t));
    }

    private int compare(int one, int other) {
        int order = Long.compare(base(one).strength(), base(other).strength());
        order = order != 0 ? order : Long.compare(base(one).age(), base(other).age());
        return order != 0 ? order : Integer.compare(one, other);
    }

    private void orderLevel(int from, int to) {
        for (int i = from; i < to; i++) {
            replacing[turns[i]] = 0;
        }
        boolean anyReplaced = false;
        for (int i = from; i < to; i++) {
            int t = turns[i];
            for (int other : titles.family().neighbours(t)) {
                if (replacing[other] >= 0 && titles.replaces(other, t)) {
                    replacing[t]++;
                    anyReplaced = true;
                }
            }
        }
        for (int at = from; anyReplaced && at < to; at++) {
            takeNext(at, to);
        }
        for (int i = from; i < to; i++) {
            replacing[turns[i]] = -1;
        }
    }

    private void takeNext(int at, int to) {
        int next = at;
        while (next < to && replacing[turns[next]] > 0) {
            next++;
        }
        next = next == to ? at : next;
        int t = turns[next];
        System.arraycopy(turns, at, turns, at + 1, next - at);
        turns[at] = t;
        replacing[t] = -1;
        for (int other : titles.family().neighbours(t)) {
            if (replacing[other] > 0 && titles.replaces(t, other)) {
                replacing[other]--;
            }
        }
    }

    private void turn(int t) {
        if (gaveWay(t)) {
            return;
        }
        if (titles.is(t, Outcome.REQUIRED)) {
            UnitNeeds.Failing failing = needs.accept(t);
            if (failing == null) {
                return;
            }
            titles.giveWay(t, Settlement.State.BLOCKED, failing.by(), failing.reason());
        } else {
            titles.keep(t);
        }
        if (titles.isPresent(t)) {
            titles.stand(t);
        }
    }

    /** Step 1: gives way to the first that stands and replaces it, else to the first that stands against it; whether there is one. */
    private boolean gaveWay(int t) {
        int against = -1;
        int replacedBy = -1;
        for (int s : titles.family().neighbours(t)) {
            if (titles.stands(s) && titles.against(s, t)) {
                against = titles.earlier(against, s);
                replacedBy = titles.comes(s) && titles.replaces(s, t) ? titles.earlier(replacedBy, s) : replacedBy;
            }
        }
        giveWay(t, replacedBy, against);
        return against >= 0;
    }

    private void giveWay(int t, int replacedBy, int against) {
        if (replacedBy >= 0) {
            titles.giveWay(t, Settlement.State.REPLACED, replacedBy, null);
        } else if (against >= 0) {
            titles.giveWay(t, Settlement.State.DISPLACED, against, null);
        }
    }

    /** What is present, and nobody's, gives way to what comes (section 8, rules 1 and 2): to the first that replaces it, else that conflicts. */
    private void leaveBehind(int t) {
        int replacedBy = -1;
        int conflicting = -1;
        for (int s : titles.family().neighbours(t)) {
            if (titles.comes(s)) {
                replacedBy = titles.replaces(s, t) ? titles.earlier(replacedBy, s) : replacedBy;
                conflicting = titles.family().conflict(s, t) ? titles.earlier(conflicting, s) : conflicting;
            }
        }
        giveWay(t, replacedBy, conflicting);
    }
}
