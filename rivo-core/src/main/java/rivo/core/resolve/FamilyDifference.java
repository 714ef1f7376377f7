package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Queue;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/**
 * Settles a family of titles for many units in two states of the estate that differ in what some titles come to by themselves ({@link SettlementPair}), block by
 * block as {@link FamilyWalk} does. Only where a title comes to something else, or is one of those, it is noted what it comes to. Used once.
 */
final class FamilyDifference {

    private final FamilyUnits units;
    private final TurnReach[] reach;
    private final List<Of> all;

    /**
     * What one title comes to in both states, at some units; what relations make of it alike in both may be left out of both.
     *
     * @param units outside them it comes to the same
     */
    record Of(Positions units, List<UnitsWith<Decision>> was, List<UnitsWith<Decision>> is) {

        static final Of NOWHERE = new Of(Positions.NONE, List.of(), List.of());
    }

    FamilyDifference(FamilyUnits units) {
        this.units = units;
        this.reach = TurnReach.of(units);
        this.all = new ArrayList<>(Collections.nCopies(units.family().titles().size(), Of.NOWHERE));
    }

    /**
     * Settles the units.
     *
     * @param threads at least 1
     * @return for each title what it comes to, {@link Settlement#STAYS} among it
     */
    List<Of> settle(int threads) {
        Queue<Lanes> blocks = units.blocks(threads);
        List<Worker> workers = new ArrayList<>();
        for (int i = Math.min(threads, blocks.size()); i > 0; i--) {
            workers.add(new Worker(blocks));
        }
        Threads.run(workers.size(), workers, () -> Worker::settle);
        List<List<Causes.Changed>> was = FamilyWalk.byTitle(units.family(), workers.stream().map(worker -> worker.was).toList());
        List<List<Causes.Changed>> is = FamilyWalk.byTitle(units.family(), workers.stream().map(worker -> worker.is).toList());
        Threads.run(threads, IntStream.range(0, all.size()).boxed().toList(), () -> t -> {
            Positions within = within(t, workers);
            if (!within.isEmpty()) {
                all.set(t, new Of(within, FamilyWalk.gathered(units, t, FamilyUnits.State.FORMER, was.get(t), within),
                        FamilyWalk.gathered(units, t, FamilyUnits.State.LATTER, is.get(t), within)));
            }
        });
        return all;
    }

    private Positions within(int t, List<Worker> workers) {
        return units.edited().get(t) ? units.among()
                : units.units(Positions.union(workers.stream().map(worker -> worker.differing[t]).filter(Objects::nonNull).map(GrowingUnits::build).toList()));
    }

    /** Settles some of the units, block by block. Of one thread. */
    private final class Worker {

        private final Queue<Lanes> blocks;
        private final FamilyUnits.Teller teller;
        private final FamilyBits former;
        private final FamilyBits latter;
        private final Causes was;
        private final Causes is;
        private final SettlementPair pair;
        /** By title, where it comes to something else; null where nowhere. */
        private final @Nullable GrowingUnits[] differing = new GrowingUnits[all.size()];

        Worker(Queue<Lanes> blocks) {
            this.blocks = blocks;
            this.teller = units.new Teller(blocks);
            this.former = new FamilyBits(units.family(), units.turns(), teller, new LaneSets(teller.words()));
            this.latter = new FamilyBits(former, units.edited());
            Causes.Numbers numbers = new Causes.Numbers();
            this.was = new Causes(numbers, teller.words(), former::decision, units.all());
            this.is = new Causes(numbers, teller.words(), latter::decision, units.all());
            this.pair = new SettlementPair(units, reach, former, latter, was, is);
        }

        void settle() {
            for (Lanes lanes = blocks.poll(); lanes != null; lanes = blocks.poll()) {
                former.begin(lanes);
                latter.begin(lanes);
                teller.tell(lanes, former, latter);
                pair.settle();
                giveOut(lanes);
            }
        }

        private void giveOut(Lanes lanes) {
            long[] @Nullable [] byTitle = new long[differing.length][];
            was.addDiffering(is, byTitle);
            is.addDiffering(was, byTitle);
            for (int t = 0; t < differing.length; t++) {
                long[] at = byTitle[t];
                if (at != null && !units.edited().get(t)) {
                    GrowingUnits growing = differing[t];
                    growing = growing == null ? new GrowingUnits(units.all()) : growing;
                    differing[t] = growing;
                    growing.add(lanes, at);
                }
            }
            was.giveOut(lanes, byTitle);
            is.giveOut(lanes, byTitle);
        }
    }
}
