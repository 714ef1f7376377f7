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
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Numbering;
import rivo.core.audience.Positions;

/**
 * What is known of the titles of a family at many units before relations are looked at, title by title as sets of units, in one state of the estate or in two
 * that differ in what some titles come to by themselves; and the blocks in which it is settled. While it is settled a place stands for each unit: its position, or where
 * the units lie apart, a number that they are given. Immutable; what is known is told by one thread each.
 */
final class FamilyUnits {

    /** Words of lanes at a time: no more than stay near the processor with all of a family's sets, and no fewer than are worth a step. */
    private static final int MOST_WORDS = 160;
    private static final int FEWEST_WORDS = 8;
    /** So many blocks for each thread, where that can be: they take different times. */
    private static final int BLOCKS = 4;
    /** Where fewer than one in so many positions are settled, units are numbered. */
    private static final int DENSE = 3;

    /** Everything that is known of one title of the family before relations are looked at. */
    record Known(List<UnitsWith<BaseOutcome>> base, List<UnitsWith<Presences.Way>> present) {
    }

    /** In which of two states a share is as it is. */
    enum State {
        BOTH, FORMER, LATTER
    }

    /** @param units those of the share of this number in {@link #turns}, and perhaps others besides those that are asked about */
    private record Assigned(Positions units, State state) {
    }

    /**
     * Ways of being present that needs cannot tell apart.
     *
     * @param reached how many of the versions that are asked of the title they reach
     * @param units theirs, and perhaps others besides those that are asked about
     */
    private record Presence(int title, int reached, List<Positions> units) {
    }

    /** Places with the first and the one after the last, which are asked for in every block. */
    private record Extent(Positions places, int first, int end) {

        static Extent of(Positions places) {
            return new Extent(places, places.first(), places.end());
        }
    }

    private final Family family;
    private final List<Choices> choices;
    private final Positions among;
    private final Turns turns;
    private final List<Assigned> assigned = new ArrayList<>();
    private final List<Presence> presences = new ArrayList<>();
    private final BitSet edited = new BitSet();
    /** By title, which is asked at every need. */
    private final boolean[] undisputed;
    /** Those that are settled. */
    private final Positions meeting;
    /** Of these, where they lie apart; null where their positions are their places. */
    private final @Nullable Numbering numbering;
    /** The places of all sets that are told of: of each share, and after those of each presence. */
    private final List<Extent> extents;
    /** By device need, the places of the units whose device meets it. */
    private final List<Positions> deviceNeedsMet;
    /** By the units that a variant fits, their places; as far as somebody has asked. */
    private final Map<Positions, Positions> fitting = new ConcurrentHashMap<>();

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
        this.among = among;
        this.undisputed = new boolean[known.size()];
        List<Turns.Share> shares = new ArrayList<>();
        for (int t = 0; t < known.size(); t++) {
            List<UnitsWith<BaseOutcome>> latter = edited.get(t);
            if (latter == null) {
                add(t, known.get(t).base(), State.BOTH, shares);
            } else {
                add(t, within(known.get(t).base()), State.FORMER, shares);
                add(t, within(latter), State.LATTER, shares);
                this.edited.set(t);
            }
            listPresences(t, known.get(t).present());
            undisputed[t] = family.isUndisputed(t) && latter == null;
        }
        this.turns = new Turns(family, shares);
        this.meeting = findMeeting();
        this.numbering = meeting.isEmpty() || isDense(meeting) ? null : new Numbering(meeting);
        this.extents = places(Stream.concat(assigned.stream().map(Assigned::units), presences.stream().flatMap(way -> way.units().stream())).toList(), threads)
                .stream().map(Extent::of).toList();
        this.deviceNeedsMet = places(deviceNeedsMet, threads);
    }

    /** Only where an edited title comes to something else, turns are taken in both states. */
    private List<UnitsWith<BaseOutcome>> within(List<UnitsWith<BaseOutcome>> base) {
        return base.stream().map(share -> new UnitsWith<>(share.what(), share.units().and(among))).filter(share -> !share.units().isEmpty()).toList();
    }

    private void add(int t, List<UnitsWith<BaseOutcome>> base, State state, List<Turns.Share> shares) {
        for (UnitsWith<BaseOutcome> share : base) {
            shares.add(new Turns.Share(t, share.what(), family.number(t, share.what().choice())));
            assigned.add(new Assigned(share.units(), state));
        }
    }

    private void listPresences(int t, List<UnitsWith<Presences.Way>> ways) {
        Map<Integer, List<Positions>> byReached = new LinkedHashMap<>();
        for (UnitsWith<Presences.Way> way : ways) {
            byReached.computeIfAbsent(family.reached(t, way.what().version()), r -> new ArrayList<>()).add(way.units());
        }
        byReached.forEach((reached, units) -> presences.add(new Presence(t, reached, units)));
    }

    /** Of each of these sets, the places of those that are settled; where these are their positions, of others, too. */
    private List<Positions> places(List<Positions> sets, int threads) {
        if (numbering == null) {
            return sets;
        }
        List<Positions> places = new ArrayList<>(sets);
        Threads.run(threads, IntStream.range(0, sets.size()).boxed().toList(), () -> i -> places.set(i, numbering.numbers(sets.get(i))));
        return places;
    }

    /** The units of these places. */
    Positions units(Positions places) {
        return numbering == null ? places : numbering.positions(places);
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
        return undisputed[title];
    }

    /** The units that are asked about. */
    Positions among() {
        return among;
    }

    /** The shares of a title that are as they are in this state, the first or second; with their units within some, but for those that are taken. */
    List<UnitsWith<Decision>> sharesWithout(int title, State state, Map<Integer, List<Positions>> taken, Positions within) {
        List<UnitsWith<Decision>> decisions = new ArrayList<>();
        for (int share : turns.of(title)) {
            State of = assigned.get(share).state();
            if (of == State.BOTH || of == state) {
                Positions left = assigned.get(share).units().and(within).without(Positions.union(taken.getOrDefault(share, List.of())));
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
    private Positions findMeeting() {
        List<Positions> needing = new ArrayList<>();
        for (int s = 0; s < turns.size(); s++) {
            Turns.Share share = turns.share(s);
            if (share.base().outcome() == Outcome.REQUIRED && family.needs(share.release()).length > 0) {
                needing.add(assigned.get(s).units());
            }
        }
        Positions asking = Positions.union(needing).and(among);
        if ((long) asking.size() * DENSE >= among.size()) {
            return among;
        }
        List<List<Positions>> touching = new ArrayList<>();
        for (int t = 0; t < family.titles().size(); t++) {
            touching.add(new ArrayList<>());
        }
        for (int s = 0; s < turns.size(); s++) {
            touching.get(turns.share(s).title()).add(assigned.get(s).units());
        }
        presences.forEach(way -> touching.get(way.title()).addAll(way.units()));
        List<Positions> meetings = new ArrayList<>(List.of(asking));
        List<Positions> touched = touching.stream().map(all -> Positions.union(all).and(among)).toList();
        for (int t = 0; t < touched.size(); t++) {
            for (int s : family.neighbours(t)) {
                if (s > t) {
                    meetings.add(touched.get(t).and(touched.get(s)));
                }
            }
        }
        return Positions.union(meetings);
    }

    /** Whether every position from the first to the last unit gets a lane. */
    private static boolean isDense(Positions units) {
        return units.size() >= (units.end() - (units.first() & -Long.SIZE)) / DENSE;
    }

    /** The places of all units that are settled, and where these lie together, of others between them. */
    Lanes all() {
        return numbering == null ? new Lanes(meeting.first() & -Long.SIZE, meeting.end()) : new Lanes(0, numbering.size());
    }

    /** The units that are settled in blocks, which ascend: what is taken is after all that was taken before. */
    Queue<Lanes> blocks(int threads) {
        Queue<Lanes> blocks = new ConcurrentLinkedQueue<>();
        Lanes all = all();
        int words = Math.max(FEWEST_WORDS, Math.min(MOST_WORDS, all.words() / BLOCKS / threads));
        for (int from = all.first(); from < all.end(); from += words * Long.SIZE) {
            blocks.add(new Lanes(from, Math.min(all.end(), from + words * Long.SIZE)));
        }
        return blocks;
    }

    /** Tells block by block what is known there. Of one thread. */
    final class Teller implements FamilyBits.Outside {

        private final int words;
        /** Used again for each block. */
        private final LaneSets memory;
        /** By set, how far its places have been passed. */
        private final int[] passed;
        private int passedAsked;

        /** @param blocks the largest of them says how much memory is asked for */
        Teller(Collection<Lanes> blocks) {
            this.words = blocks.stream().mapToInt(Lanes::words).max().orElse(0);
            this.memory = new LaneSets(words);
            this.passed = new int[extents.size()];
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
                long[] at = kept(at(lanes, s, null), asked);
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
                for (int i = way.units().size(); i > 0; i--) {
                    any = at(lanes, number++, any);
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
         * Adds where those of a set are.
         *
         * @param number of the set
         * @param known where others are; null where nowhere
         * @return where any are; null where they are all outside the lanes
         */
        private long @Nullable [] at(Lanes lanes, int number, long @Nullable [] known) {
            Extent extent = extents.get(number);
            if (extent.end() <= lanes.first() || extent.first() >= lanes.end()) {
                return known;
            }
            long[] at = known == null ? nothing() : known;
            passed[number] = lanes.mark(extent.places(), at, passed[number]);
            return at;
        }

        /** The lanes that are asked about; null where no others are told of. */
        private long @Nullable [] asked(Lanes lanes) {
            int last = lanes.first() + lanes.words() * Long.SIZE;
            if (numbering != null || among.countIn(lanes.first(), last) == last - lanes.first()) {
                return null;
            }
            long[] asked = nothing();
            passedAsked = lanes.mark(among, asked, passedAsked);
            return asked;
        }

        /** What is asked about of the last set; where that is nothing, gives its memory back, and null. */
        private long @Nullable [] kept(long @Nullable [] set, long @Nullable [] asked) {
            if (set != null && asked != null) {
                Bits.keep(set, asked, 0, words);
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

        @Override
        public void addFitting(Positions units, Lanes lanes, long[] into) {
            lanes.mark(numbering == null ? units : fitting.computeIfAbsent(units, numbering::numbers), into);
        }
    }
}
