package rivo.core.resolve;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;

/**
 * Settles the titles of one family against each other (sections 7 and 8 of the resolution rules), step by step as they are written, at many units at once.
 * Titles go by their places in the family. Used by one thread.
 *
 * <p><b>How.</b> How strong a winner is does not depend on the unit. So what a title comes to by itself somewhere has its turn at all of those units at the same
 * time, and every question of a turn is asked of sets: 64 units in one word.
 */
final class Settlement implements TurnOrder.Taker {

    /** What relations make of a title. */
    enum State {
        IMPLIED, REPLACED, DISPLACED, BLOCKED, KEPT
    }

    /** Stands for a title without any outcome that stays because it meets a need. */
    static final Decision STAYS = new Decision(Outcome.LATER, null, null, List.of(), null);

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
    private final UndisputedNeeds undisputed;
    private final TurnOrder order;
    private int step;

    /** Those that stand against the title whose turn it is, and where; and those of them that replace it. */
    private final Candidates against;
    private final Candidates replacing;

    /**
     * @param bits of the units
     * @param undisputed the needs for undisputed titles in the same state
     */
    Settlement(FamilyUnits units, FamilyBits bits, Sink sink, UndisputedNeeds undisputed) {
        this.family = units.family();
        this.turns = units.turns();
        this.bits = bits;
        this.sets = bits.sets();
        this.sink = sink;
        this.undisputed = undisputed;
        this.needs = new Needs(family, turns, bits, sink, undisputed);
        this.against = new Candidates(bits);
        this.replacing = new Candidates(bits);
        this.order = new TurnOrder(turns);
    }

    /** Settles what has been told to the family's bits. */
    void settle() {
        run(family, this::settleAll);
    }

    /** Does what follows the needs of a family, with a stack that is deep enough. */
    static void run(Family family, Runnable settling) {
        if (family.longestChain() > LONG_CHAIN) {
            Threads.deep(settling);
        } else {
            settling.run();
        }
    }

    /**
     * What relations make of a title as a decision; {@link #STAYS} where it is held without an outcome.
     *
     * @param deciding of its base outcome; none without one
     * @param implied what it gets where it is implied
     * @param by as the {@link Sink} is told
     */
    static Decision decision(State state, List<Assignment> deciding, @Nullable Choice implied, Family family, int by, @Nullable Reason reason) {
        return switch (state) {
            case IMPLIED -> new Decision(Outcome.REQUIRED, Reason.IMPLIED, implied, deciding, family.id(by));
            case REPLACED -> new Decision(Outcome.REPLACED, null, null, deciding, family.id(by));
            case DISPLACED -> new Decision(Outcome.DISPLACED, null, null, deciding, family.id(by));
            case BLOCKED -> new Decision(Outcome.BLOCKED, reason, null, deciding, family.id(by));
            case KEPT -> STAYS;
        };
    }

    /** How many steps have been taken; those that stand earlier have lower ones. */
    int step() {
        return step;
    }

    /** Goes on from this step. */
    void goOn(int from) {
        step = from;
    }

    /** Forgets all, for other units. */
    void begin() {
        step = 0;
        undisputed.begin();
    }

    private void settleAll() {
        begin();
        for (Turns.Level level : turns.levels()) {
            settle(level);
        }
        for (int t = 0; t < family.titles().size(); t++) {
            leaveBehind(t);
        }
    }

    void settle(Turns.Level level) {
        order.settle(level, this);
    }

    @Override
    public long @Nullable [] where(int share) {
        return bits.share(share);
    }

    @Override
    public void turn(int share, long[] at) {
        int t = turns.share(share).title();
        if (undisputed.areFor(t) || !sets.look(at)) {
            return;
        }
        TitleBits own = bits.at(t);
        int taken = sets.taken();
        long[] open = own.needed ? sets.without(at, own.decided) : sets.copy(at);
        if (sets.any(open)) {
            giveWay(share, own, open);
            if (turns.share(share).base().outcome() == Outcome.REQUIRED) {
                long[] accepted = sets.copy(open);
                step = needs.accept(share, step, accepted);
                sets.remove(open, accepted);
            } else if (own.needed) {
                sets.add(own.kept, open);
            }
            if (sets.any(open)) {
                own.decide(open, sets.from(), sets.to());
                hold(own, open);
            }
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
            own.decide(all, sets.from(), sets.to());
            sets.remove(open, all);
        }
        sets.giveBack(taken);
    }

    /** What is present, and nobody's, gives way to what comes (section 8, rules 1 and 2): to the first that replaces it, else that conflicts. */
    void leaveBehind(int t) {
        if (family.neighbours(t).length == 0 || !bits.knows(t) || !sets.look(bits.at(t).present)) {
            return;
        }
        TitleBits own = bits.at(t);
        int taken = sets.taken();
        long[] alone = sets.without(own.present, own.assigned);
        sets.remove(alone, own.decided);
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
}
