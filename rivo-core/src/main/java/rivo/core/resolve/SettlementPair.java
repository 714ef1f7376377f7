package rivo.core.resolve;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Settles the titles of a family in two states that differ in what some of them come to by themselves, at many units at once. Of one thread.
 *
 * <p><b>How.</b> What is known and decided of a title is known once, as long as it is the same in both at all units. At the units at which a turn looks at nothing that is
 * different, it has the same consequences in both, and is taken once. At the others it is taken in both, after what it may decide has come apart; and what is the same
 * afterwards is joined again. Turns that {@linkplain TurnsThatMatter make no difference} are not taken at all.
 */
final class SettlementPair implements TurnOrder.Taker {

    private final Family family;
    private final Turns turns;
    private final FamilyBits formerBits;
    private final FamilyBits latterBits;
    private final Settlement former;
    private final Settlement latter;
    private final UndisputedNeeds formerUndisputed;
    private final UndisputedNeeds latterUndisputed;
    private final TurnOrder order;
    private final BitSet edited;
    private final TurnReach[] reach;
    private final TurnsThatMatter mattering;
    private final List<Step> steps;
    private final LaneSets sets;
    /** Where the turn is taken once, and where in both; nothing between two turns. */
    private final long[] once;
    private final long[] twice;
    private final long[] everywhere;
    /** Whether what titles come to is told: where turns are taken in both. */
    private boolean telling;

    /** @param sameOrder whether nobody of the level has to wait for a title that comes to something else by itself, or the other way round */
    private record Step(Turns.Level level, boolean sameOrder) {
    }

    /**
     * @param reach of each share
     * @param latterBits those of the second state, beside {@code formerBits}
     * @param ofFormer is told what titles come to in the first state, at least where that is not what they come to in the second
     */
    SettlementPair(FamilyUnits units, TurnReach[] reach, FamilyBits formerBits, FamilyBits latterBits, Settlement.Sink ofFormer, Settlement.Sink ofLatter) {
        this.family = units.family();
        this.turns = units.turns();
        this.edited = units.edited();
        this.formerBits = formerBits;
        this.latterBits = latterBits;
        this.formerUndisputed = new UndisputedNeeds(units, formerBits, ofFormer);
        this.latterUndisputed = new UndisputedNeeds(units, latterBits, ofLatter);
        this.former = new Settlement(units, formerBits, (title, part, state, by, reason, where, from, to) -> {
            if (telling) {
                ofFormer.comesTo(title, part, state, by, reason, where, from, to);
            }
        }, formerUndisputed);
        this.latter = new Settlement(units, latterBits, ofLatter, latterUndisputed);
        this.order = new TurnOrder(turns);
        this.sets = formerBits.sets();
        this.once = new long[sets.words()];
        this.twice = new long[sets.words()];
        this.everywhere = new long[sets.words()];
        Arrays.fill(everywhere, -1);
        this.reach = reach;
        this.mattering = new TurnsThatMatter(units, reach, formerBits, latterBits, formerUndisputed);
        this.steps = turns.levels().stream().map(level -> new Step(level, isSameOrder(level))).toList();
    }

    private boolean isSameOrder(Turns.Level level) {
        return Arrays.stream(level.shares()).noneMatch(share -> edited.get(turns.share(share).title()) && turns.isTied(share));
    }

    /** Settles what has been told to the bits of both. */
    void settle() {
        Settlement.run(family, this::settleAll);
    }

    private void settleAll() {
        former.begin();
        latter.begin();
        mattering.find();
        for (Step step : steps) {
            if (step.sameOrder()) {
                order.settle(step.level(), this);
            } else {
                settleApart(step.level());
            }
        }
        telling = true;
        for (int t = 0; t < family.titles().size(); t++) {
            if (latterBits.isApart(t) || latterBits.anyApart(family.neighbours(t))) {
                former.leaveBehind(t);
                latter.leaveBehind(t);
            }
        }
    }

    private void settleApart(Turns.Level level) {
        BitSet decided = new BitSet();
        for (int share : level.shares()) {
            if (mattering.where(share) != null) {
                Arrays.stream(reach[share].decides()).forEach(decided::set);
            }
        }
        inBoth(decided.stream().toArray(), everywhere, () -> order.settle(level, new InOneState(former, formerBits)),
                () -> order.settle(level, new InOneState(latter, latterBits)));
    }

    /** Takes the turns that matter in one of the states. */
    private final class InOneState implements TurnOrder.Taker {

        private final Settlement settlement;
        private final FamilyBits bits;

        InOneState(Settlement settlement, FamilyBits bits) {
            this.settlement = settlement;
            this.bits = bits;
        }

        @Override
        public long @Nullable [] where(int share) {
            return bits.share(share) == null ? null : mattering.where(share);
        }

        @Override
        public void turn(int share, long[] at) {
            settlement.turn(share, at);
        }
    }

    @Override
    public long @Nullable [] where(int share) {
        return mattering.where(share);
    }

    @Override
    public void turn(int share, long[] at) {
        TurnReach of = reach[share];
        if (!latterBits.anyApart(of.looksAt())) {
            once(share, at);
        } else if (sets.look(at)) {
            split(share, at);
        }
    }

    private void split(int share, long[] at) {
        TurnReach of = reach[share];
        int from = sets.from();
        int to = sets.to();
        latterBits.addDifferent(of.decides(), of.besides(), twice);
        sets.keep(twice, at);
        Bits.without(at, twice, once, from, to);
        boolean anyTwice = sets.any(twice);
        if (sets.any(once)) {
            once(share, once);
        }
        if (anyTwice) {
            inBoth(of.decides(), twice, () -> turn(former, formerBits, share, twice), () -> turn(latter, latterBits, share, twice));
        }
        Arrays.fill(once, from, to, 0);
        Arrays.fill(twice, from, to, 0);
    }

    private void once(int share, long[] at) {
        int[] decides = reach[share].decides();
        int since = former.step();
        telling = false;
        formerUndisputed.goWith(latterUndisputed);
        former.turn(share, at);
        formerUndisputed.goWith(null);
        if (latterBits.anyApart(decides) && sets.look(at)) {
            latterBits.follow(decides, at, since);
        }
    }

    private static void turn(Settlement settlement, FamilyBits bits, int share, long[] at) {
        if (bits.share(share) != null) {
            settlement.turn(share, at);
        }
    }

    /** Both begin at the same step: what stands in both since the same turn then stands since the same step. */
    private void inBoth(int[] decided, long[] at, Runnable inFormer, Runnable inLatter) {
        latterBits.part(decided);
        telling = true;
        int since = former.step();
        latter.goOn(since);
        inFormer.run();
        inLatter.run();
        former.goOn(Math.max(former.step(), latter.step()));
        sets.look(at);
        latterBits.rejoin(decided, at, since);
    }
}
