package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/**
 * Settles a family of titles for many units.
 *
 * <p><b>How.</b> What is known lies title by title, as sets of units; a unit is settled by what <em>it</em> has. So a block of units at a time is
 * turned round: each unit gets the list of the shares that it is in. Then each is settled with memory that is used again and again. Most titles come to
 * what they are by themselves, and nothing is noted of them: only the units at which relations change something are, and at the end they are
 * taken out of the shares. Used once.
 */
final class FamilyWalk {

    /** Units at a time, about: their lists stay near the processor. */
    private static final int BLOCK = 1024;
    /** Positions of a block at the most, where few of them are asked about. */
    private static final int WIDEST = 1 << 18;

    private final Family family;
    private final List<Known> known;
    private final List<Choices> choices;
    private final List<Positions> deviceNeedsMet;
    /** All shares of base outcomes, then all ways of being present: of which title each is, and how it is told. */
    private final List<Share> shares = new ArrayList<>();
    /** Of each share the units that are settled. */
    private List<Positions> entered = List.of();
    /** The same in flat arrays, which are read for each share of each unit. */
    private final int[] titleOf;
    private final @Nullable BaseOutcome[] baseOf;
    private final Outcome[] outcomeOf;
    private final int[] placeOf;
    private final int[] levelOf;
    private final int[] numberOf;

    /**
     * What relations make of a title.
     *
     * @param share of its base outcome, of which the units are taken out; -1 without one
     * @param units at which it comes to that
     */
    private record Changed(int title, int share, Decision decision, GrowingUnits units) {
    }

    /**
     * @param base null for a way of being present
     * @param place of the base outcome among all of the family, the strongest first
     * @param level the same for level ones
     * @param number of the base outcome's release in the family; of a way of being present, how many of the versions that are asked of the title
     *     it reaches
     */
    private record Share(int title, Positions units, @Nullable BaseOutcome base, int place, int level, int number) {
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
        listBases(among);
        listPresences(among);
        shares.removeIf(share -> share.units().isEmpty());
        titleOf = shares.stream().mapToInt(Share::title).toArray();
        baseOf = shares.stream().map(Share::base).toArray(BaseOutcome[]::new);
        outcomeOf = shares.stream().map(Share::base).map(base -> base == null ? Outcome.LATER : base.outcome()).toArray(Outcome[]::new);
        placeOf = shares.stream().mapToInt(Share::place).toArray();
        levelOf = shares.stream().mapToInt(Share::level).toArray();
        numberOf = shares.stream().mapToInt(Share::number).toArray();
    }

    private void listBases(Positions among) {
        List<BaseOutcome> all = new ArrayList<>();
        known.forEach(title -> title.base().forEach(share -> all.add(share.what())));
        all.sort(BaseOutcome.STRONGEST_THEN_OLDEST);
        Map<BaseOutcome, Integer> places = new HashMap<>();
        int[] levels = new int[all.size()];
        for (int i = 0; i < all.size(); i++) {
            boolean isLevel = i > 0 && all.get(i).rank().compareTo(all.get(i - 1).rank()) == 0;
            boolean isAsOld = isLevel && all.get(i).seq() == all.get(i - 1).seq();
            levels[i] = isLevel ? levels[i - 1] : i;
            places.putIfAbsent(all.get(i), isAsOld ? Objects.requireNonNull(places.get(all.get(i - 1))) : i);
        }
        for (int t = 0; t < known.size(); t++) {
            for (UnitsWith<BaseOutcome> share : known.get(t).base()) {
                int place = Objects.requireNonNull(places.get(share.what()));
                shares.add(new Share(t, share.units().and(among), share.what(), place, levels[place], family.number(t, share.what().choice())));
            }
        }
    }

    private void listPresences(Positions among) {
        for (int t = 0; t < known.size(); t++) {
            Map<Integer, List<Positions>> byReached = new LinkedHashMap<>();
            for (UnitsWith<Presences.Way> share : known.get(t).present()) {
                Positions units = share.units().and(among);
                if (!units.isEmpty()) {
                    byReached.computeIfAbsent(family.reached(t, share.what().version()), r -> new ArrayList<>()).add(units);
                }
            }
            for (Map.Entry<Integer, List<Positions>> one : byReached.entrySet()) {
                shares.add(new Share(t, Positions.union(one.getValue()), null, 0, 0, one.getKey()));
            }
        }
    }

    /**
     * Settles the units.
     *
     * @param threads at least 1
     * @return for each title its decisions, {@link Settlement#STAYS} among them
     */
    List<List<UnitsWith<Decision>>> settle(int threads) {
        Positions touched = meeting();
        entered = shares.stream().map(share -> share.units().and(touched)).toList();
        int width = width(touched);
        int blocks = (touched.end() - touched.first() + width - 1) / width;
        int pieces = Math.max(1, Math.min(threads, blocks));
        List<Worker> workers = new ArrayList<>();
        for (int i = 0; i < pieces; i++) {
            int from = touched.first() + (int) ((long) blocks * i / pieces) * width;
            int to = i == pieces - 1 ? touched.end() : touched.first() + (int) ((long) blocks * (i + 1) / pieces) * width;
            workers.add(new Worker(touched.in(from, to), width));
        }
        if (pieces == 1) {
            workers.get(0).settle();
        } else {
            Threads.run(pieces, workers, () -> Worker::settle);
        }
        return gathered(workers);
    }

    /** So many positions hold a block of the units on average. */
    private static int width(Positions units) {
        long average = (long) BLOCK * (units.end() - units.first()) / Math.max(1, units.size());
        return (int) Math.max(BLOCK, Math.min(WIDEST, average));
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
        for (Share share : shares) {
            touching.get(share.title()).add(share.units());
            BaseOutcome base = share.base();
            if (base != null && base.outcome() == Outcome.REQUIRED && family.needs(share.number()).length > 0) {
                meeting.add(share.units());
            }
        }
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

    /** Settles some of the units. Of one thread. */
    private final class Worker {

        private final Positions units;
        /** Positions at a time. */
        private final int width;
        private final Settlement settlement = new Settlement(family);
        /** All that decisions depend on that relations make; and those decisions, by its numbers. */
        private final Causes causes = new Causes();
        private final List<Changed> changed = new ArrayList<>();
        /** Releases with their variants, as they come up: each is one object, and comparing numbers is quicker. */
        private final Map<Choice, Integer> choiceNumbers = new IdentityHashMap<>();

        Worker(Positions units, int width) {
            this.units = units;
            this.width = width;
        }

        int number(Choice choice) {
            Integer known = choiceNumbers.get(choice);
            if (known == null) {
                known = choiceNumbers.size();
                choiceNumbers.put(choice, known);
            }
            return known;
        }

        void settle() {
            for (int from = units.first(); from < units.end(); from += width) {
                Positions block = units.in(from, Math.min(from + width, units.end()));
                if (!block.isEmpty()) {
                    new Block(from, this).settle(block);
                }
            }
        }
    }

    /** Some units, each with the shares that it is in. */
    private final class Block implements Settlement.Unit {

        private final int from;
        private final Worker worker;
        private final Settlement settlement;
        /** For each unit its last entry; for each entry the one before it of the same unit; -1 for none. */
        private final int[] last;
        private int[] shareOf = new int[BLOCK];
        private int[] before = new int[BLOCK];
        private int entries;
        /** What relations make: of which cause, at which unit. */
        private int[] noted = new int[BLOCK];
        private int[] notedAt = new int[BLOCK];
        private int notes;
        private int unit;
        /** For each title the share of its base outcome at the unit. */
        private final int[] baseShare = new int[known.size()];

        Block(int from, Worker worker) {
            this.from = from;
            this.worker = worker;
            this.settlement = worker.settlement;
            this.last = new int[worker.width];
            Arrays.fill(last, -1);
        }

        void settle(Positions block) {
            for (int s = 0; s < shares.size(); s++) {
                int share = s;
                entered.get(s).in(block.first(), block.end()).forEach(position -> enter(share, position));
            }
            block.forEach(this::settle);
            giveOut();
        }

        private void enter(int share, int position) {
            if (entries == shareOf.length) {
                shareOf = Arrays.copyOf(shareOf, 2 * entries);
                before = Arrays.copyOf(before, 2 * entries);
            }
            shareOf[entries] = share;
            before[entries] = last[position - from];
            last[position - from] = entries++;
        }

        private void settle(int position) {
            unit = position;
            settlement.begin(this);
            for (int e = last[position - from]; e >= 0; e = before[e]) {
                int share = shareOf[e];
                BaseOutcome base = baseOf[share];
                if (base == null) {
                    settlement.present(titleOf[share], numberOf[share]);
                } else {
                    settlement.assigned(titleOf[share], base, outcomeOf[share], placeOf[share], levelOf[share], numberOf[share]);
                    baseShare[titleOf[share]] = share;
                }
            }
            settlement.settle();
            for (int i = 0; i < settlement.touchedCount(); i++) {
                int t = settlement.touched(i);
                if (!settlement.isByItself(t)) {
                    note(t);
                }
            }
        }

        private void note(int t) {
            int share = settlement.isAssigned(t) ? baseShare[t] : -1;
            boolean isPulledIn = share < 0 && settlement.state(t) == Settlement.State.IMPLIED;
            int choice = isPulledIn ? worker.number(Objects.requireNonNull(settlement.choice(t))) : -1;
            Reason reason = settlement.reason(t);
            long how = (long) settlement.by(t) << 32 | settlement.state(t).ordinal() << 8 | (reason == null ? 0 : 1 + reason.ordinal());
            long what = (long) (share < 0 ? -1 - t : share) << 32 | choice + 1;
            int cause = worker.causes.number(how, what);
            if (cause == worker.changed.size()) {
                worker.changed.add(new Changed(t, share, Objects.requireNonNull(settlement.decision(t)),
                        new GrowingUnits(worker.units.first(), worker.units.end())));
            }
            if (notes == noted.length) {
                noted = Arrays.copyOf(noted, 2 * notes);
                notedAt = Arrays.copyOf(notedAt, 2 * notes);
            }
            noted[notes] = cause;
            notedAt[notes++] = unit;
        }

        /** Gives each cause its units, one cause after the other: going from one to the next for each note would be slow. */
        private void giveOut() {
            int[] ends = new int[worker.changed.size() + 1];
            for (int i = 0; i < notes; i++) {
                ends[noted[i] + 1]++;
            }
            for (int c = 0; c < worker.changed.size(); c++) {
                ends[c + 1] += ends[c];
            }
            int[] sorted = new int[notes];
            int[] next = ends.clone();
            for (int i = 0; i < notes; i++) {
                sorted[next[noted[i]]++] = notedAt[i];
            }
            for (int c = 0; c < worker.changed.size(); c++) {
                for (int i = ends[c]; i < ends[c + 1]; i++) {
                    worker.changed.get(c).units().add(sorted[i]);
                }
            }
        }

        @Override
        public @Nullable Choice newest(int title) {
            return choices.get(title).newestAt(unit);
        }

        @Override
        public boolean meets(int deviceNeed) {
            return deviceNeedsMet.get(deviceNeed).contains(unit);
        }
    }

    private List<List<UnitsWith<Decision>>> gathered(List<Worker> workers) {
        List<List<UnitsWith<Decision>>> all = new ArrayList<>();
        for (int t = 0; t < known.size(); t++) {
            all.add(new ArrayList<>());
        }
        List<List<Positions>> taken = new ArrayList<>();
        shares.forEach(share -> taken.add(new ArrayList<>(0)));
        List<Map<Decision, List<Positions>>> alike = new ArrayList<>();
        known.forEach(title -> alike.add(new LinkedHashMap<>()));
        for (Worker worker : workers) {
            for (Changed one : worker.changed) {
                Positions units = one.units().build();
                alike.get(one.title()).computeIfAbsent(one.decision(), d -> new ArrayList<>(1)).add(units);
                if (one.share() >= 0) {
                    taken.get(one.share()).add(units);
                }
            }
        }
        for (int s = 0; s < shares.size(); s++) {
            Share share = shares.get(s);
            BaseOutcome base = share.base();
            Positions left = taken.get(s).isEmpty() ? share.units() : share.units().without(Positions.union(taken.get(s)));
            if (base != null && !left.isEmpty()) {
                all.get(share.title()).add(new UnitsWith<>(base.decision(), left));
            }
        }
        for (int t = 0; t < known.size(); t++) {
            List<UnitsWith<Decision>> of = all.get(t);
            alike.get(t).forEach((decision, units) -> of.add(new UnitsWith<>(decision, Positions.union(units))));
        }
        return all;
    }
}
