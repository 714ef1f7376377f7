package rivo.core.resolve;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/**
 * Settles a family of titles for many units.
 *
 * <p><b>How.</b> What is known lies title by title, as sets of units. Where relations can change anything, a block of units at a time gets {@link Lanes}, and
 * is settled with memory that is used again and again. Most titles come to what they are by themselves, and nothing is noted of them: only the units at which
 * relations change something are, cause by cause, and at the end they are taken out of the shares. Used once.
 */
final class FamilyWalk {

    /** Words of lanes at a time: no more than stay near the processor with all of a family's sets, and no fewer than are worth a step. */
    private static final int MOST_WORDS = 64;
    private static final int FEWEST_WORDS = 8;
    /** So many blocks for each thread, where that can be: they take different times. */
    private static final int BLOCKS = 4;
    /** Where one in so many positions is asked about, every position gets a lane. */
    private static final int DENSE = 3;

    private final Family family;
    private final List<Known> known;
    private final List<Choices> choices;
    private final List<Positions> deviceNeedsMet;
    private final Turns turns;
    /** By share of {@link #turns}, its units. */
    private final List<Extent> assigned = new ArrayList<>();
    private final List<Presence> presences = new ArrayList<>();

    /**
     * Ways of being present that needs cannot tell apart.
     *
     * @param reached how many of the versions that are asked of the title they reach
     */
    private record Presence(int title, int reached, List<Extent> units) {
    }

    /** Units with the places of the first and after the last, which are asked for in every block. */
    private record Extent(Positions units, int first, int end) {

        static Extent of(Positions units) {
            return new Extent(units, units.first(), units.end());
        }
    }

    /** What relations make of a title, and by what. */
    private record Cause(int title, int part, Settlement.State state, int by, @Nullable Reason reason) {
    }

    /** @param units at which it comes to that */
    private record Changed(Decision decision, GrowingUnits units) {
    }

    /** Everything that is known of one title of the family before relations are looked at. */
    record Known(List<UnitsWith<BaseOutcome>> base, List<UnitsWith<Presences.Way>> present) {
    }

    /**
     * @param known for each title of the family, in its order
     * @param choices for each title its releases
     * @param deviceNeedsMet for each of the family's device needs the units whose device meets it
     * @param among the units that are asked about
     */
    FamilyWalk(Family family, List<Known> known, List<Choices> choices, List<Positions> deviceNeedsMet, Positions among) {
        this.family = family;
        this.known = known;
        this.choices = choices;
        this.deviceNeedsMet = deviceNeedsMet;
        List<Turns.Share> shares = new ArrayList<>();
        for (int t = 0; t < known.size(); t++) {
            for (UnitsWith<BaseOutcome> share : known.get(t).base()) {
                Positions units = share.units().and(among);
                if (!units.isEmpty()) {
                    shares.add(new Turns.Share(t, share.what(), family.number(t, share.what().choice())));
                    assigned.add(Extent.of(units));
                }
            }
            listPresences(t, among);
        }
        this.turns = new Turns(family, shares);
    }

    private void listPresences(int t, Positions among) {
        Map<Integer, List<Extent>> byReached = new LinkedHashMap<>();
        for (UnitsWith<Presences.Way> way : known.get(t).present()) {
            Positions units = way.units().and(among);
            if (!units.isEmpty()) {
                byReached.computeIfAbsent(family.reached(t, way.what().version()), r -> new ArrayList<>()).add(Extent.of(units));
            }
        }
        byReached.forEach((reached, units) -> presences.add(new Presence(t, reached, units)));
    }

    /**
     * Settles the units.
     *
     * @param threads at least 1
     * @return for each title its decisions, {@link Settlement#STAYS} among them
     */
    List<List<UnitsWith<Decision>>> settle(int threads) {
        Queue<Lanes> blocks = new ConcurrentLinkedQueue<>();
        Positions meeting = meeting();
        blocks.addAll(blocks(meeting, threads));
        List<Worker> workers = new ArrayList<>();
        for (int i = Math.min(threads, blocks.size()); i > 0; i--) {
            workers.add(new Worker(blocks, meeting));
        }
        Threads.run(workers.size(), workers, () -> Worker::settle);
        return gathered(workers, threads);
    }

    private static List<Lanes> blocks(Positions units, int threads) {
        List<Lanes> blocks = new ArrayList<>();
        int first = units.first() & -Long.SIZE;
        boolean dense = units.size() >= (units.end() - first) / DENSE;
        int lanes = dense ? units.end() - first : units.size();
        int words = Math.max(FEWEST_WORDS, Math.min(MOST_WORDS, lanes / Long.SIZE / BLOCKS / threads));
        if (dense) {
            for (int from = first; from < units.end(); from += words * Long.SIZE) {
                blocks.add(Lanes.span(from, Math.min(words, (units.end() - from - 1) / Long.SIZE + 1)));
            }
            return blocks;
        }
        int[] all = units.toArray();
        for (int from = 0; from < all.length; from += words * Long.SIZE) {
            blocks.add(Lanes.of(Arrays.copyOfRange(all, from, Math.min(all.length, from + words * Long.SIZE))));
        }
        return blocks;
    }

    /**
     * The units at which relations may change anything: those at which a title is required that needs something, and those at which two have something
     * to do that may stand against each other. Everywhere else each comes to what it is by itself.
     */
    private Positions meeting() {
        List<List<Positions>> touching = new ArrayList<>();
        for (int t = 0; t < known.size(); t++) {
            touching.add(new ArrayList<>());
        }
        List<Positions> meeting = new ArrayList<>();
        for (int s = 0; s < turns.size(); s++) {
            Turns.Share share = turns.share(s);
            touching.get(share.title()).add(assigned.get(s).units());
            if (share.base().outcome() == Outcome.REQUIRED && family.needs(share.release()).length > 0) {
                meeting.add(assigned.get(s).units());
            }
        }
        presences.forEach(way -> way.units().forEach(extent -> touching.get(way.title()).add(extent.units())));
        List<Positions> touched = touching.stream().map(Positions::union).toList();
        for (int t = 0; t < known.size(); t++) {
            for (int s : family.neighbours(t)) {
                if (s > t) {
                    meeting.add(touched.get(t).and(touched.get(s)));
                }
            }
        }
        return Positions.union(meeting);
    }

    /** Settles some of the units, block by block. Of one thread. */
    private final class Worker implements Settlement.Sink, FamilyBits.Outside {

        /** Those of all workers, ascending: what one takes is after what it has taken. */
        private final Queue<Lanes> blocks;
        private final Positions meeting;
        private final int words;
        private final FamilyBits bits;
        private final Settlement settlement;
        private final Map<Cause, Integer> numbers = new HashMap<>();
        /** By the numbers of causes. */
        private final List<Cause> causes = new ArrayList<>();
        private final List<Changed> changed = new ArrayList<>();
        /** By cause, where in the block it is; null where nowhere. Those that are somewhere; and memory for more. */
        private final List<long @Nullable []> where = new ArrayList<>();
        private final List<Integer> found = new ArrayList<>();
        private final Deque<long[]> free = new ArrayDeque<>();

        Worker(Queue<Lanes> blocks, Positions meeting) {
            this.blocks = blocks;
            this.meeting = meeting;
            this.words = blocks.stream().mapToInt(Lanes::words).max().orElse(0);
            this.bits = new FamilyBits(family, turns, this, new LaneSets(words));
            this.settlement = new Settlement(family, turns, bits, this);
        }

        void settle() {
            for (Lanes next = blocks.poll(); next != null; next = blocks.poll()) {
                settle(next);
            }
        }

        private void settle(Lanes lanes) {
            bits.begin(lanes);
            List<long[]> used = new ArrayList<>();
            for (int s = 0; s < turns.size(); s++) {
                long[] at = at(lanes, List.of(assigned.get(s)), used);
                if (at != null) {
                    bits.assigned(s, at);
                }
            }
            for (Presence way : presences) {
                long[] at = at(lanes, way.units(), used);
                if (at != null) {
                    bits.at(way.title()).present(way.reached(), at);
                }
            }
            settlement.settle();
            giveOut(lanes);
            free.addAll(used);
        }

        /** Where any of these are; null where nowhere. */
        private long @Nullable [] at(Lanes lanes, List<Extent> sets, List<long[]> used) {
            long[] at = null;
            for (Extent extent : sets) {
                if (extent.end() > lanes.first() && extent.first() < lanes.end()) {
                    at = at == null ? memory() : at;
                    lanes.mark(extent.units(), at);
                }
            }
            if (at != null) {
                used.add(at);
            }
            return at != null && Bits.any(at, 0, words) ? at : null;
        }

        /** A set with nothing in it. */
        private long[] memory() {
            long[] set = free.poll();
            if (set == null) {
                return new long[words];
            }
            Arrays.fill(set, 0);
            return set;
        }

        @Override
        public void comesTo(int title, int part, Settlement.State state, int by, @Nullable Reason reason, long[] lanes, int from, int to) {
            Cause cause = new Cause(title, part, state, by, reason);
            Integer number = numbers.get(cause);
            if (number == null) {
                number = causes.size();
                numbers.put(cause, number);
                causes.add(cause);
                changed.add(new Changed(settlement.decision(title, part, state, by, reason), new GrowingUnits(meeting.first(), meeting.end())));
                where.add(null);
            }
            long[] at = where.get(number);
            if (at == null) {
                at = memory();
                where.set(number, at);
                found.add(number);
            }
            for (int w = from; w < to; w++) {
                at[w] |= lanes[w];
            }
        }

        /** Gives each cause its units. */
        private void giveOut(Lanes lanes) {
            for (int number : found) {
                long[] at = Objects.requireNonNull(where.get(number));
                changed.get(number).units().add(lanes, at);
                where.set(number, null);
                free.push(at);
            }
            found.clear();
        }

        @Override
        public Choices choices(int title) {
            return choices.get(title);
        }

        @Override
        public void addMeeting(int deviceNeed, Lanes lanes, long[] into) {
            lanes.mark(deviceNeedsMet.get(deviceNeed), into);
        }
    }

    private List<List<UnitsWith<Decision>>> gathered(List<Worker> workers, int threads) {
        List<List<Gathering>> byTitle = new ArrayList<>();
        known.forEach(title -> byTitle.add(new ArrayList<>()));
        for (Worker worker : workers) {
            for (int c = 0; c < worker.causes.size(); c++) {
                Cause cause = worker.causes.get(c);
                byTitle.get(cause.title()).add(new Gathering(cause, worker.changed.get(c)));
            }
        }
        List<List<UnitsWith<Decision>>> all = new ArrayList<>(Collections.nCopies(known.size(), List.of()));
        Threads.run(threads, IntStream.range(0, known.size()).boxed().toList(), () -> t -> all.set(t, gathered(t, byTitle.get(t))));
        return all;
    }

    private record Gathering(Cause cause, Changed changed) {
    }

    private List<UnitsWith<Decision>> gathered(int t, List<Gathering> made) {
        Map<Integer, List<Positions>> taken = new HashMap<>();
        Map<Decision, List<Positions>> alike = new HashMap<>();
        for (Gathering one : made) {
            Positions units = one.changed().units().build();
            alike.computeIfAbsent(one.changed().decision(), d -> new ArrayList<>(1)).add(units);
            taken.computeIfAbsent(one.cause().part(), p -> new ArrayList<>(1)).add(units);
        }
        List<UnitsWith<Decision>> decisions = new ArrayList<>();
        for (int share : turns.of(t)) {
            Positions left = assigned.get(share).units().without(Positions.union(taken.getOrDefault(share, List.of())));
            if (!left.isEmpty()) {
                decisions.add(new UnitsWith<>(turns.share(share).base().decision(), left));
            }
        }
        // In an order that does not depend on who settled which block.
        alike.entrySet().stream().map(one -> new UnitsWith<>(one.getKey(), Positions.union(one.getValue())))
                .sorted(Comparator.comparingInt(one -> one.units().first())).forEach(decisions::add);
        return decisions;
    }
}
