package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/**
 * What is known of the titles of a family at many units before relations are looked at, title by title as sets of units, in one state of the estate or in two
 * that differ in what some titles come to by themselves; and the blocks of units in which it is settled. Immutable, but for the blocks that are taken.
 */
final class FamilyUnits {

    /** Words of lanes at a time: no more than stay near the processor with all of a family's sets, and no fewer than are worth a step. */
    private static final int MOST_WORDS = 160;
    private static final int FEWEST_WORDS = 8;
    /** So many blocks for each thread, where that can be: they take different times. */
    private static final int BLOCKS = 4;
    /** Where one in so many positions is asked about, every position gets a lane. */
    private static final int DENSE = 3;

    /** Everything that is known of one title of the family before relations are looked at. */
    record Known(List<UnitsWith<BaseOutcome>> base, List<UnitsWith<Presences.Way>> present) {
    }

    /** In which of two states a share is as it is. */
    enum State {
        BOTH, FORMER, LATTER
    }

    /** Units with the places of the first and after the last, which are asked for in every block. */
    private record Extent(Positions units, int first, int end) {

        static Extent of(Positions units) {
            return new Extent(units, units.first(), units.end());
        }
    }

    /** @param units those of the share of this number in {@link #turns}; where {@link #isWide}, others besides those that are asked about */
    private record Assigned(Extent units, State state) {
    }

    /**
     * Ways of being present that needs cannot tell apart.
     *
     * @param reached how many of the versions that are asked of the title they reach
     */
    private record Presence(int title, int reached, List<Extent> units) {
    }

    private final Family family;
    private final List<Choices> choices;
    private final List<Positions> deviceNeedsMet;
    private final Positions among;
    /** Whether much of a stretch is asked about, though not all: then sets are left as they are, and the rest is left out block by block, which costs less than cutting each. */
    private final boolean isWide;
    private final Turns turns;
    private final List<Assigned> assigned = new ArrayList<>();
    private final List<Presence> presences = new ArrayList<>();
    private final BitSet edited = new BitSet();

    /**
     * @param known for each title of the family, in its order
     * @param edited by the place of a title what it comes to by itself in a second state; none where only one is looked at
     * @param choices for each title its releases
     * @param deviceNeedsMet for each of the family's device needs the units whose device meets it
     * @param among the units that are asked about
     * @param threads at least 1
     */
    FamilyUnits(Family family, List<Known> known, Map<Integer, List<UnitsWith<BaseOutcome>>> edited, List<Choices> choices,
            List<Positions> deviceNeedsMet, Positions among, int threads) {
        this.family = family;
        this.choices = choices;
        this.deviceNeedsMet = deviceNeedsMet;
        this.among = among;
        this.isWide = isDense(among) && among.size() < among.end() - among.first();
        List<Known> within = new ArrayList<>(known);
        Map<Integer, List<UnitsWith<BaseOutcome>>> editedWithin = new ConcurrentHashMap<>();
        Threads.run(threads, IntStream.range(0, known.size()).boxed().toList(), () -> t -> {
            boolean isEdited = edited.containsKey(t);
            within.set(t, new Known(within(known.get(t).base(), isEdited), within(known.get(t).present(), isEdited)));
            if (isEdited) {
                editedWithin.put(t, within(edited.get(t), true));
            }
        });
        List<Turns.Share> shares = new ArrayList<>();
        for (int t = 0; t < within.size(); t++) {
            List<UnitsWith<BaseOutcome>> latter = editedWithin.get(t);
            add(t, within.get(t).base(), latter == null ? State.BOTH : State.FORMER, shares);
            if (latter != null) {
                add(t, latter, State.LATTER, shares);
                this.edited.set(t);
            }
            listPresences(t, within.get(t).present());
        }
        this.turns = new Turns(family, shares);
    }

    /**
     * What is anywhere among the units that are asked about, and where of them.
     *
     * @param isEdited whether the title comes to something else in the second state: only where it does, turns are taken in both
     */
    private <T> List<UnitsWith<T>> within(List<UnitsWith<T>> all, boolean isEdited) {
        if (isWide && !isEdited) {
            return all;
        }
        List<UnitsWith<T>> within = new ArrayList<>(all.size());
        for (UnitsWith<T> one : all) {
            Positions units = one.units().and(among);
            if (!units.isEmpty()) {
                within.add(new UnitsWith<>(one.what(), units));
            }
        }
        return within;
    }

    private void add(int t, List<UnitsWith<BaseOutcome>> base, State state, List<Turns.Share> shares) {
        for (UnitsWith<BaseOutcome> share : base) {
            shares.add(new Turns.Share(t, share.what(), family.number(t, share.what().choice())));
            assigned.add(new Assigned(Extent.of(share.units()), state));
        }
    }

    private void listPresences(int t, List<UnitsWith<Presences.Way>> ways) {
        Map<Integer, List<Extent>> byReached = new LinkedHashMap<>();
        for (UnitsWith<Presences.Way> way : ways) {
            byReached.computeIfAbsent(family.reached(t, way.what().version()), r -> new ArrayList<>()).add(Extent.of(way.units()));
        }
        byReached.forEach((reached, units) -> presences.add(new Presence(t, reached, units)));
    }

    Family family() {
        return family;
    }

    Turns turns() {
        return turns;
    }

    /** The titles that come to something else by themselves in the second state. */
    BitSet edited() {
        return edited;
    }

    /** Whether a title is undisputed, and whether a need for it is met is the same in both states. */
    boolean isUndisputed(int title) {
        return family.isUndisputed(title) && !edited.get(title);
    }

    /** The units that are asked about. */
    Positions among() {
        return among;
    }

    /** The shares of a title that are as they are in this state, the first or second; with their units outside those given. */
    List<UnitsWith<Decision>> sharesWithout(int title, State state, Map<Integer, List<Positions>> taken, Positions within) {
        List<UnitsWith<Decision>> decisions = new ArrayList<>();
        for (int share : turns.of(title)) {
            State of = assigned.get(share).state();
            if (of == State.BOTH || of == state) {
                Positions all = assigned.get(share).units().units();
                Positions left = (within == among && !isWide ? all : all.and(within)).without(Positions.union(taken.getOrDefault(share, List.of())));
                if (!left.isEmpty()) {
                    decisions.add(new UnitsWith<>(turns.share(share).base().decision(), left));
                }
            }
        }
        return decisions;
    }

    /**
     * The units at which relations may change anything: those at which a title is required that needs something, and those at which two have something
     * to do that may stand against each other. Everywhere else each comes to what it is by itself. All, where the former are a good part of them: finding
     * the others would cost more than it spares.
     */
    Positions meeting() {
        List<Positions> needing = new ArrayList<>();
        for (int s = 0; s < turns.size(); s++) {
            Turns.Share share = turns.share(s);
            if (share.base().outcome() == Outcome.REQUIRED && family.needs(share.release()).length > 0) {
                needing.add(assigned.get(s).units().units());
            }
        }
        Positions asking = asked(Positions.union(needing));
        if ((long) asking.size() * DENSE >= among.size()) {
            return among;
        }
        List<List<Positions>> touching = new ArrayList<>();
        for (int t = 0; t < family.titles().size(); t++) {
            touching.add(new ArrayList<>());
        }
        for (int s = 0; s < turns.size(); s++) {
            touching.get(turns.share(s).title()).add(assigned.get(s).units().units());
        }
        presences.forEach(way -> way.units().forEach(extent -> touching.get(way.title()).add(extent.units())));
        List<Positions> meeting = new ArrayList<>(List.of(asking));
        List<Positions> touched = touching.stream().map(all -> asked(Positions.union(all))).toList();
        for (int t = 0; t < touched.size(); t++) {
            for (int s : family.neighbours(t)) {
                if (s > t) {
                    meeting.add(touched.get(t).and(touched.get(s)));
                }
            }
        }
        return Positions.union(meeting);
    }

    private Positions asked(Positions units) {
        return isWide ? units.and(among) : units;
    }

    /** Whether every position from the first to the last unit gets a lane. */
    private static boolean isDense(Positions units) {
        return units.size() >= (units.end() - (units.first() & -Long.SIZE)) / DENSE;
    }

    /** Units in blocks, which ascend: what is taken is after all that was taken before. */
    static Queue<Lanes> blocks(Positions units, int threads) {
        Queue<Lanes> blocks = new ConcurrentLinkedQueue<>();
        int first = units.first() & -Long.SIZE;
        boolean dense = isDense(units);
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

    /** Tells block by block what is known there. Of one thread. */
    final class Teller implements FamilyBits.Outside {

        private final int words;
        /** Used again for each block. */
        private final LaneSets memory;
        /** By share, and after those by presence and its part, how far its units have been passed. */
        private final int[] passed;
        private int passedAsked;

        /** @param blocks the largest of them says how much memory is asked for */
        Teller(Collection<Lanes> blocks) {
            this.words = blocks.stream().mapToInt(Lanes::words).max().orElse(0);
            this.memory = new LaneSets(words);
            this.passed = new int[assigned.size() + presences.stream().mapToInt(way -> way.units().size()).sum()];
        }

        int words() {
            return words;
        }

        /**
         * @param lanes after those of the last call
         * @param latter the second state; null where only one is looked at
         */
        void tell(Lanes lanes, FamilyBits former, @Nullable FamilyBits latter) {
            memory.giveBack(0);
            long[] asked = asked(lanes);
            for (int s = 0; s < assigned.size(); s++) {
                long[] at = kept(at(lanes, assigned.get(s).units(), s, null), asked);
                if (at != null && assigned.get(s).state() != State.LATTER) {
                    former.assigned(s, at);
                }
                if (at != null && latter != null && assigned.get(s).state() != State.FORMER) {
                    latter.assigned(s, at);
                }
            }
            int number = assigned.size();
            for (Presence way : presences) {
                long[] any = null;
                for (Extent units : way.units()) {
                    any = at(lanes, units, number++, any);
                }
                long[] at = kept(any, asked);
                if (at != null) {
                    former.present(way.title(), way.reached(), at);
                    if (latter != null) {
                        latter.present(way.title(), way.reached(), at);
                    }
                }
            }
        }

        /**
         * Adds where these are.
         *
         * @param number of these units in {@link #passed}
         * @param known where others are; null where nowhere
         * @return where any are; null where they are all outside the lanes
         */
        private long @Nullable [] at(Lanes lanes, Extent extent, int number, long @Nullable [] known) {
            if (extent.end() <= lanes.first() || extent.first() >= lanes.end()) {
                return known;
            }
            long[] at = known == null ? nothing() : known;
            passed[number] = lanes.mark(extent.units(), at, passed[number]);
            return at;
        }

        /** The lanes that are asked about; null where no others are told of. */
        private long @Nullable [] asked(Lanes lanes) {
            if (!isWide || !lanes.isSpan()) {
                return null;
            }
            long[] asked = nothing();
            passedAsked = lanes.mark(among, asked, passedAsked);
            return asked;
        }

        /** What is asked about of the last set; where that is nothing, gives its memory back, and null. */
        private long @Nullable [] kept(long @Nullable [] set, long @Nullable [] asked) {
            if (set != null && asked != null) {
                for (int w = 0; w < words; w++) {
                    set[w] &= asked[w];
                }
            }
            if (set == null || Bits.any(set, 0, words)) {
                return set;
            }
            memory.giveBack(memory.taken() - 1);
            return null;
        }

        private long[] nothing() {
            long[] set = memory.some();
            Arrays.fill(set, 0);
            return set;
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
}
