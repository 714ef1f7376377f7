package rivo.core.resolve;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Gives the base outcomes of a level their turns (the head of section 7), each at all units where it is its turn. Of one thread. */
final class TurnOrder {

    private static final int[] NONE = {};

    /** Who settles what has its turn. */
    interface Taker {

        /** Where a share is, as lanes; null where it is not. */
        long @Nullable [] where(int share);

        /** It is the share's turn there. */
        void turn(int share, long[] at);
    }

    private final Turns turns;

    /** By share of a level at which some have to wait: where it has not had its turn; null at other levels. */
    private final long[] @Nullable [] waiting;

    TurnOrder(Turns turns) {
        this.turns = turns;
        this.waiting = new long[turns.size()][];
    }

    /** By taking, again and again, the first that none of the rest replaces; an estate's replacements make no circle. */
    void settle(Turns.Level level, Taker taker) {
        boolean anyWaits = level.waiting().length > 0;
        for (int i = 0; anyWaits && i < level.shares().length; i++) {
            int share = level.shares()[i];
            long[] where = taker.where(share);
            waiting[share] = where == null || !turns.isTied(share) ? null : where.clone();
        }
        for (int share : level.shares()) {
            long[] where = taker.where(share);
            long[] rest = waiting[share];
            if (where != null && (!anyWaits || rest == null)) {
                taker.turn(share, where);
            } else if (where != null) {
                take(share, free(share, rest), turns.place(share), NONE, taker);
            }
        }
    }

    /** Where none of the rest replaces it. */
    private long[] free(int share, long[] among) {
        long[] free = among.clone();
        for (int other : turns.waitsFor(share)) {
            long[] rest = waiting[other];
            if (rest != null) {
                Bits.remove(free, rest);
            }
        }
        return free;
    }

    /**
     * Gives a share its turn somewhere, and then those that it frees there, the first of them at a time.
     *
     * @param looked the place in the order that has been come to: what is after it has its turn later
     * @param freed others that may be free there, in the order of their turns
     */
    private void take(int share, long[] at, int looked, int[] freed, Taker taker) {
        if (!Bits.any(at, 0, at.length)) {
            return;
        }
        Bits.remove(Objects.requireNonNull(waiting[share]), at);
        taker.turn(share, at);
        int[] next = merged(freed, turns.waiters(share));
        for (int i = 0; i < next.length && turns.place(next[i]) < looked; i++) {
            long[] rest = waiting[next[i]];
            if (rest != null && Bits.meet(rest, at, 0, at.length)) {
                long[] both = at.clone();
                Bits.keep(both, rest, 0, both.length);
                long[] free = free(next[i], both);
                take(next[i], free, looked, next, taker);
                Bits.remove(at, free);
            }
        }
    }

    /** All of both, each once, in the order of their turns, as both are. */
    private int[] merged(int[] some, int[] more) {
        if (some.length == 0 || more.length == 0) {
            return more.length == 0 ? some : more;
        }
        int[] all = new int[some.length + more.length];
        int n = 0;
        for (int i = 0, j = 0; i < some.length || j < more.length; n++) {
            boolean same = i < some.length && j < more.length && some[i] == more[j];
            boolean one = j == more.length || i < some.length && turns.place(some[i]) <= turns.place(more[j]);
            all[n] = one ? some[i] : more[j];
            i += one ? 1 : 0;
            j += one && !same ? 0 : 1;
        }
        return Arrays.copyOf(all, n);
    }
}
