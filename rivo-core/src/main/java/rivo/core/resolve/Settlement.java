package rivo.core.resolve;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;

/**
 * Settles the titles of one family against each other (sections 7 and 8 of the resolution rules), step by step as they are written, at many units at once.
 * Titles go by their places in the family. Used by one thread.
 *
 * <p><b>How.</b> How strong a winner is does not depend on the unit. So what a title comes to by itself somewhere has its turn at all of those units at the same
 * time, and every question of a turn is asked of sets: 64 units in one word.
 */
final class Settlement {

    /** What relations make of a title. */
    enum State {
        IMPLIED, REPLACED, DISPLACED, BLOCKED, KEPT
    }

    /** Stands for a title without any outcome that stays because it meets a need. */
    static final Decision STAYS = new Decision(Outcome.LATER, null, null, List.of(), null);

    private static final int[] NONE = {};
    /** What titles need is followed by calls, four for each: longer chains want a deep stack. */
    private static final int LONG_CHAIN = 50;

    static final int NOBODY = Integer.MIN_VALUE;

    /** Takes what titles come to where that is not what they are by themselves. */
    interface Sink {

        /**
         * @param part of the title, as {@link FamilyBits#release} counts; {@link FamilyBits#NO_PART} without a base outcome and without a release
         * @param by a place in the family; below zero one in {@link Family#deviceNeeds}, counted from -1 down; or {@link #NOBODY}
         * @param where lanes: the words from one to another alone, at least one lane among them, and only for the time of the call
         */
        void comesTo(int title, int part, State state, int by, @Nullable Reason reason, long[] where, int from, int to);
    }

    private final Family family;
    private final Turns turns;
    private final FamilyBits bits;
    private final LaneSets sets;
    private final Sink sink;
    private final Needs needs;
    private int step;

    /** Those that stand against the title whose turn it is, and where; and those of them that replace it. */
    private final Candidates against;
    private final Candidates replacing;

    /** By share of a level at which some have to wait: where it has not had its turn; null at other levels. */
    private final long[] @Nullable [] waiting;

    Settlement(Family family, Turns turns, FamilyBits bits, Sink sink) {
        this.family = family;
        this.turns = turns;
        this.bits = bits;
        this.sets = bits.sets();
        this.sink = sink;
        this.needs = new Needs(family, turns, bits, sink);
        this.against = new Candidates(bits);
        this.replacing = new Candidates(bits);
        this.waiting = new long[turns.size()][];
    }

    /** Settles what has been told to the family's bits. */
    void settle() {
        if (family.longestChain() > LONG_CHAIN) {
            Threads.deep(this::settleAll);
        } else {
            settleAll();
        }
    }

    private void settleAll() {
        step = 0;
        for (Turns.Level level : turns.levels()) {
            settle(level);
        }
        for (int t = 0; t < family.titles().size(); t++) {
            if (family.neighbours(t).length > 0 && bits.knows(t)) {
                leaveBehind(t);
            }
        }
    }

    /** By taking, again and again, the first that none of the rest replaces; an estate's replacements make no circle. */
    private void settle(Turns.Level level) {
        boolean anyWaits = level.waiting().length > 0;
        for (int i = 0; anyWaits && i < level.shares().length; i++) {
            int share = level.shares()[i];
            long[] where = bits.share(share);
            waiting[share] = where == null || !turns.isTied(share) ? null : where.clone();
        }
        for (int share : level.shares()) {
            long[] where = bits.share(share);
            long[] rest = waiting[share];
            if (where != null && (!anyWaits || rest == null)) {
                turn(share, where);
            } else if (where != null) {
                take(share, free(share, rest), turns.place(share), NONE);
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
    private void take(int share, long[] at, int looked, int[] freed) {
        if (!Bits.any(at, 0, at.length)) {
            return;
        }
        Bits.remove(Objects.requireNonNull(waiting[share]), at);
        turn(share, at);
        int[] next = merged(freed, turns.waiters(share));
        for (int i = 0; i < next.length && turns.place(next[i]) < looked; i++) {
            long[] rest = waiting[next[i]];
            if (rest != null && Bits.meet(rest, at, 0, at.length)) {
                long[] both = at.clone();
                for (int w = 0; w < both.length; w++) {
                    both[w] &= rest[w];
                }
                long[] free = free(next[i], both);
                take(next[i], free, looked, next);
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

    private void turn(int share, long[] at) {
        if (!sets.look(at)) {
            return;
        }
        int t = turns.share(share).title();
        TitleBits own = bits.at(t);
        int taken = sets.taken();
        long[] open = sets.without(at, own.decided);
        if (sets.any(open)) {
            giveWay(share, own, open);
            if (turns.share(share).base().outcome() == Outcome.REQUIRED) {
                long[] accepted = sets.copy(open);
                step = needs.accept(share, step, accepted);
                sets.remove(open, accepted);
            } else if (own.needed) {
                sets.add(own.kept, open);
            }
            sets.add(own.decided, open);
            hold(own, open);
        }
        sets.giveBack(taken);
    }

    /** What is there stays where it is, and stands. */
    private void hold(TitleBits own, long[] open) {
        if (sets.meet(open, own.present)) {
            own.stands(step++, sets.both(open, own.present), sets.from(), sets.to());
        }
    }

    /** Where something that stands stands against the title (step 1). */
    private void giveWay(int share, TitleBits own, long[] open) {
        int t = turns.share(share).title();
        int[] neighbours = family.neighbours(t);
        int taken = sets.taken();
        against.begin();
        replacing.begin();
        for (int k = 0; k < neighbours.length; k++) {
            if (bits.knows(neighbours[k]) && sets.meet(open, bits.at(neighbours[k]).standing)) {
                TitleBits other = bits.at(neighbours[k]);
                long[] where = sets.both(open, other.standing);
                bits.keepAgainst(t, k, where);
                against.add(neighbours[k], where);
                if (family.mayReplace(neighbours[k], t)) {
                    replacing.add(neighbours[k], sets.both(sets.both(where, other.comes), bits.replacedBy(t, k)));
                }
            }
        }
        if (against.any()) {
            long[] replaced = replacing.all();
            long[] all = against.all();
            against.leave(replaced);
            replacing.first((by, where) -> sink.comesTo(t, share, State.REPLACED, by, null, where, sets.from(), sets.to()));
            against.first((by, where) -> sink.comesTo(t, share, State.DISPLACED, by, null, where, sets.from(), sets.to()));
            if (own.needed) {
                sets.add(own.replaced, replaced);
                sets.add(own.displaced, sets.without(all, replaced));
            }
            sets.add(own.decided, all);
            sets.remove(open, all);
        }
        sets.giveBack(taken);
    }

    /** What is present, and nobody's, gives way to what comes (section 8, rules 1 and 2): to the first that replaces it, else that conflicts. */
    private void leaveBehind(int t) {
        TitleBits own = bits.at(t);
        if (!sets.look(own.present)) {
            return;
        }
        int taken = sets.taken();
        long[] alone = sets.without(sets.without(own.present, own.assigned), own.decided);
        against.begin();
        replacing.begin();
        int[] neighbours = family.neighbours(t);
        for (int k = 0; k < neighbours.length; k++) {
            if (bits.knows(neighbours[k]) && sets.meet(alone, bits.at(neighbours[k]).comes)) {
                long[] where = sets.both(alone, bits.at(neighbours[k]).comes);
                if (family.mayReplace(neighbours[k], t)) {
                    replacing.add(neighbours[k], sets.both(where, bits.replacedBy(t, k)));
                }
                if (family.conflict(t, neighbours[k])) {
                    against.add(neighbours[k], where);
                }
            }
        }
        if (!against.any() && !replacing.any()) {
            sets.giveBack(taken);
            return;
        }
        against.leave(replacing.all());
        replacing.first((by, where) -> sink.comesTo(t, FamilyBits.NO_PART, State.REPLACED, by, null, where, sets.from(), sets.to()));
        against.first((by, where) -> sink.comesTo(t, FamilyBits.NO_PART, State.DISPLACED, by, null, where, sets.from(), sets.to()));
        sets.giveBack(taken);
    }

    /** What that is as a decision; {@link #STAYS} where it is held without an outcome. */
    Decision decision(int title, int part, State state, int by, @Nullable Reason reason) {
        BaseOutcome base = part >= 0 ? turns.share(part).base() : null;
        List<Assignment> deciding = base == null ? List.of() : base.deciding();
        return switch (state) {
            case IMPLIED -> new Decision(Outcome.REQUIRED, Reason.IMPLIED, bits.choice(title, part), deciding, id(by));
            case REPLACED -> new Decision(Outcome.REPLACED, null, null, deciding, id(by));
            case DISPLACED -> new Decision(Outcome.DISPLACED, null, null, deciding, id(by));
            case BLOCKED -> new Decision(Outcome.BLOCKED, reason, null, deciding, id(by));
            case KEPT -> STAYS;
        };
    }

    private String id(int who) {
        return who >= 0 ? family.titles().get(who).id() : family.deviceNeeds().get(-1 - who).title();
    }
}
