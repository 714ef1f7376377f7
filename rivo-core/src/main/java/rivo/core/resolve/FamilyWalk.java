package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.stream.IntStream;
import rivo.core.audience.Positions;

/**
 * Settles a family of titles for many units.
 *
 * <p><b>How.</b> What is known lies title by title, as sets of units ({@link FamilyUnits}). Where relations can change anything, a block of units at a time gets
 * {@link Lanes}, and is settled with memory that is used again and again. Most titles come to what they are by themselves, and nothing is noted of them: only
 * the units at which relations change something are, cause by cause, and at the end they are taken out of the shares. Used once.
 */
final class FamilyWalk {

    private final FamilyUnits units;

    FamilyWalk(FamilyUnits units) {
        this.units = units;
    }

    /**
     * Settles the units.
     *
     * @param threads at least 1
     * @return for each title its decisions, {@link Settlement#STAYS} among them
     */
    List<List<UnitsWith<Decision>>> settle(int threads) {
        Queue<Lanes> blocks = units.blocks(threads);
        List<Worker> workers = new ArrayList<>();
        for (int i = Math.min(threads, blocks.size()); i > 0; i--) {
            workers.add(new Worker(blocks));
        }
        Threads.run(workers.size(), workers, () -> Worker::settle);
        List<List<Causes.Changed>> byTitle = byTitle(units.family(), workers.stream().map(worker -> worker.causes).toList());
        List<List<UnitsWith<Decision>>> all = new ArrayList<>(Collections.nCopies(byTitle.size(), List.of()));
        Threads.run(threads, IntStream.range(0, byTitle.size()).boxed().toList(), () -> t -> all.set(t,
                gathered(units, t, FamilyUnits.State.FORMER, byTitle.get(t), units.among())));
        return all;
    }

    /** Settles some of the units, block by block. Of one thread. */
    private final class Worker {

        private final Queue<Lanes> blocks;
        private final FamilyUnits.Teller teller;
        private final FamilyBits bits;
        private final Causes causes;
        private final Settlement settlement;

        Worker(Queue<Lanes> blocks) {
            this.blocks = blocks;
            this.teller = units.new Teller(blocks);
            this.bits = new FamilyBits(units.family(), units.turns(), teller, new LaneSets(teller.words()));
            this.causes = new Causes(new Causes.Numbers(), teller.words(), bits::decision, units.all());
            this.settlement = new Settlement(units, bits, causes, new UndisputedNeeds(units, bits, causes));
        }

        void settle() {
            for (Lanes lanes = blocks.poll(); lanes != null; lanes = blocks.poll()) {
                bits.begin(lanes);
                teller.tell(lanes, bits, null);
                settlement.settle();
                causes.giveOut(lanes);
            }
        }
    }

    /** What was gathered by several, by the places of titles. */
    static List<List<Causes.Changed>> byTitle(Family family, List<Causes> gathered) {
        List<List<Causes.Changed>> byTitle = new ArrayList<>();
        family.titles().forEach(title -> byTitle.add(new ArrayList<>()));
        gathered.forEach(causes -> causes.changed().forEach(one -> byTitle.get(one.cause().title()).add(one)));
        return byTitle;
    }

    /** What a title comes to within some units, in one of two states: by what was gathered, and else by itself. */
    static List<UnitsWith<Decision>> gathered(FamilyUnits units, int t, FamilyUnits.State state, List<Causes.Changed> gathered, Positions within) {
        Map<Integer, List<Positions>> taken = new HashMap<>();
        Map<Decision, List<Positions>> alike = new HashMap<>();
        for (Causes.Changed one : gathered) {
            Positions at = units.units(one.units().build());
            if (!at.isEmpty()) {
                alike.computeIfAbsent(one.decision(), d -> new ArrayList<>(1)).add(at);
                taken.computeIfAbsent(one.cause().part(), p -> new ArrayList<>(1)).add(at);
            }
        }
        List<UnitsWith<Decision>> decisions = units.sharesWithout(t, state, taken, within);
        // In an order that does not depend on who settled which block.
        alike.entrySet().stream().map(one -> new UnitsWith<>(one.getKey(), Positions.union(one.getValue())))
                .sorted(Comparator.comparingInt(one -> one.units().first())).forEach(decisions::add);
        return decisions;
    }
}
