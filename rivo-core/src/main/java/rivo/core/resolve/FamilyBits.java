package rivo.core.resolve;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Objects;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;

/** What is known and decided of the titles of a family at the units of some {@link Lanes}, while they are settled. Of one thread. */
final class FamilyBits {

    /** Stands for no part of a title. */
    static final int NO_PART = Integer.MIN_VALUE;

    /** What else can be asked of the units. */
    interface Outside {

        /** The releases of the title at this place. */
        Choices choices(int title);

        /** Adds where the device meets the need of this place in {@link Family#deviceNeeds}. */
        void addMeeting(int deviceNeed, Lanes lanes, long[] into);

        /** Adds where units are that a variant fits. */
        void addFitting(Positions units, Lanes lanes, long[] into);
    }

    private final Family family;
    private final Turns turns;
    private final Outside outside;
    private final LaneSets sets;
    private final int words;
    private final @Nullable TitleBits[] titles;
    private final boolean[] known;
    /** By share, where it is; null where it is not. */
    private final long[] @Nullable [] shares;
    private final long[] @Nullable [] deviceNeeds;
    private final int[] @Nullable [] offered;
    /** By title, its variants as {@link #newest} says; null as long as nobody has asked. */
    private final long @Nullable [] @Nullable [] @Nullable [] newest;
    /** By title and neighbour: where the release of that one replaces it; null as long as nobody has asked. */
    private final long[] @Nullable [] @Nullable [] replacedBy;
    private final long[] nothing;
    /** Another state of the same units, which knows and decides of most titles the same; null where only one is looked at. */
    private final @Nullable FamilyBits other;
    /** By title, whether anything else is known or decided of it here than there: only then what is known here counts. */
    private final boolean[] apart;
    /** By title that was apart, where anything is different, and where it does not stand alike or not since the same step; nothing, where it is not apart. */
    private final long[] @Nullable [] differing;
    private final long[] @Nullable [] standingElse;
    /** Those that come to something else by themselves. */
    private final BitSet edited;
    private Lanes lanes;

    FamilyBits(Family family, Turns turns, Outside outside, LaneSets sets) {
        this(family, turns, outside, sets, null, new BitSet());
    }

    /** Of the same units in another state, in which these titles come to something else by themselves: what is the same is known once. */
    FamilyBits(FamilyBits other, BitSet edited) {
        this(other.family, other.turns, other.outside, other.sets, other, edited);
    }

    private FamilyBits(Family family, Turns turns, Outside outside, LaneSets sets, @Nullable FamilyBits other, BitSet edited) {
        this.other = other;
        this.edited = edited;
        this.family = family;
        this.turns = turns;
        this.outside = outside;
        this.sets = sets;
        this.words = sets.words();
        this.titles = new TitleBits[family.titles().size()];
        this.known = new boolean[titles.length];
        this.apart = new boolean[titles.length];
        this.shares = new long[turns.size()][];
        this.deviceNeeds = new long[family.deviceNeeds().size()][];
        this.offered = new int[titles.length][];
        this.newest = new long[titles.length][][];
        this.replacedBy = new long[titles.length][][];
        this.differing = new long[titles.length][];
        this.standingElse = new long[titles.length][];
        this.nothing = new long[words];
        this.lanes = new Lanes(0, 0);
    }

    /** Forgets all for these units. */
    void begin(Lanes next) {
        lanes = next;
        Arrays.fill(known, false);
        Arrays.fill(shares, null);
        Arrays.fill(deviceNeeds, null);
        Arrays.fill(newest, null);
        for (long[] @Nullable [] of : replacedBy) {
            if (of != null) {
                Arrays.fill(of, null);
            }
        }
        for (int t = 0; t < apart.length; t++) {
            if (apart[t]) {
                Arrays.fill(different(differing, t), 0);
                Arrays.fill(different(standingElse, t), 0);
            }
            apart[t] = edited.get(t);
        }
    }

    /** The sets that are looked at now. */
    LaneSets sets() {
        return sets;
    }

    /** Whether anything was said or decided of the title. */
    boolean knows(int title) {
        return other != null && !apart[title] ? other.knows(title) : known[title];
    }

    TitleBits at(int title) {
        return other != null && !apart[title] ? other.at(title) : own(title);
    }

    private TitleBits own(int title) {
        TitleBits bits = titles[title];
        if (bits == null) {
            bits = new TitleBits(nothing, family.neighbours(title).length > 0, family.isNeeded(title));
            titles[title] = bits;
        } else if (!known[title]) {
            bits.clear();
        }
        known[title] = true;
        return bits;
    }

    /** Whether something else is known or decided of a title than in the other state. */
    boolean isApart(int title) {
        return apart[title];
    }

    /** The same of one of these. */
    boolean anyApart(int[] some) {
        for (int title : some) {
            if (isApart(title)) {
                return true;
            }
        }
        return false;
    }

    private long[] different(long[] @Nullable [] of, int title) {
        long[] where = of[title];
        if (where == null) {
            where = new long[words];
            of[title] = where;
        }
        return where;
    }

    /**
     * Adds where something is different of what a turn looks at, among the words that are looked at now.
     *
     * @param decided the titles that it may decide: of these it looks at everything
     * @param others of which it looks at whether they stand
     */
    void addDifferent(int[] decided, int[] others, long[] into) {
        for (int title : decided) {
            if (apart[title] && edited.get(title)) {
                Arrays.fill(into, sets.from(), sets.to(), -1);
                return;
            }
            if (apart[title]) {
                sets.add(into, different(differing, title));
            }
        }
        for (int title : others) {
            if (apart[title]) {
                sets.add(into, different(standingElse, title));
            }
        }
    }

    /** From now on, what is decided of these titles may be something else than in the other state. */
    void part(int[] some) {
        for (int title : some) {
            if (!apart[title]) {
                TitleBits same = at(title);
                apart[title] = true;
                own(title).takeOver(same);
            }
        }
    }

    /** The same as in the other state was decided of these titles at these units, from this step on. */
    void follow(int[] decided, long[] at, int since) {
        for (int title : decided) {
            if (apart[title]) {
                own(title).takeOver(Objects.requireNonNull(other).at(title), at, sets.from(), sets.to(), since);
            }
        }
    }

    /** These titles were decided in both states at these units, from this step on: those of which the same is known and decided in both go on together. */
    void rejoin(int[] decided, long[] at, int since) {
        for (int title : decided) {
            if (apart[title]) {
                long[] anything = different(differing, title);
                own(title).compare(Objects.requireNonNull(other).at(title), at, sets.from(), sets.to(), since, !edited.get(title), anything,
                        different(standingElse, title));
                apart[title] = edited.get(title) || Bits.any(anything, 0, words);
            }
        }
    }

    /** @param where the share is: the caller's, who leaves it as it is */
    void assigned(int share, long[] where) {
        Turns.Share of = turns.share(share);
        shares[share] = where;
        if (isOwn(of.title())) {
            own(of.title()).assigned(of.base().outcome(), where);
        }
    }

    /** @param reached how many of the versions that are asked of the title */
    void present(int title, int reached, long[] where) {
        if (isOwn(title)) {
            own(title).present(reached, where);
        }
    }

    /** Whether what is known of a title at first is noted here. */
    private boolean isOwn(int title) {
        return other == null || edited.get(title);
    }

    /** Where the share is; null where it is not. */
    long @Nullable [] share(int share) {
        return shares[share];
    }

    /** The parts of a title are its shares and, below zero, the variants that it has where it has no base outcome: of each the release, or none. */
    int release(int title, int part) {
        return part >= 0 ? turns.share(part).release() : offered(title)[-1 - part];
    }

    /** By variant that is offered, the number of its release. */
    private int[] offered(int title) {
        int[] numbers = offered[title];
        if (numbers == null) {
            Choices choices = outside.choices(title);
            numbers = new int[choices.offered()];
            for (int o = 0; o < numbers.length; o++) {
                numbers[o] = family.number(title, choices.offered(o));
            }
            offered[title] = numbers;
        }
        return numbers;
    }

    private @Nullable Choice choice(int title, int part) {
        return part >= 0 ? turns.share(part).base().choice() : outside.choices(title).offered(-1 - part);
    }

    /** By variant, where a title without a base outcome has it as the newest that fits; null where nowhere. */
    long[] @Nullable [] newest(int title) {
        if (!isOwn(title)) {
            return Objects.requireNonNull(other).newest(title);
        }
        long[] @Nullable [] known = newest[title];
        if (known == null) {
            known = findNewest(own(title), outside.choices(title));
            newest[title] = known;
        }
        return known;
    }

    private long[] @Nullable [] findNewest(TitleBits of, Choices choices) {
        long[] @Nullable [] newest = new long[choices.offered()][];
        long[] rest = new long[words];
        long left = 0;
        for (int w = 0; w < words; w++) {
            rest[w] = ~of.assigned[w];
            left |= rest[w];
        }
        for (int o = 0; o < newest.length && left != 0; o++) {
            Positions fits = choices.fits(o);
            long[] taking = new long[words];
            if (fits == null) {
                Arrays.fill(taking, -1);
            } else {
                outside.addFitting(fits, lanes, taking);
            }
            left = 0;
            for (int w = 0; w < words; w++) {
                taking[w] &= rest[w];
                rest[w] &= ~taking[w];
                left |= rest[w];
            }
            newest[o] = taking;
        }
        return newest;
    }

    /** Adds where the release that counts of a title is one for which this holds. */
    private void addReleases(int title, IntPredicate holds, long[] into) {
        for (int share : turns.of(title)) {
            long[] where = shares[share];
            if (where != null && holds.test(turns.share(share).release())) {
                Bits.add(into, where);
            }
        }
        if (lanes.areIn(at(title).assigned)) {
            return;
        }
        int[] offered = offered(title);
        for (int o = 0; o < offered.length; o++) {
            if (holds.test(offered[o])) {
                long[] where = newest(title)[o];
                if (where != null) {
                    Bits.add(into, where);
                }
            }
        }
    }

    /** Leaves of a set where the release of the needed title meets the need. */
    void keepMeeting(Family.LocalNeed need, long[] set) {
        if (family.isMetByEach(need) || !sets.any(set)) {
            return;
        }
        long[] meeting = new long[words];
        addReleases(need.title(), release -> family.meets(release, need), meeting);
        sets.keep(set, meeting);
    }

    /** Where the release of the neighbour at this place replaces the title. */
    long[] replacedBy(int title, int neighbour) {
        int by = family.neighbours(title)[neighbour];
        if (!isOwn(by)) {
            return Objects.requireNonNull(other).replacedBy(title, neighbour);
        }
        long[] @Nullable [] known = replacedBy[title];
        if (known == null) {
            known = new long[family.neighbours(title).length][];
            replacedBy[title] = known;
        }
        long[] replaced = known[neighbour];
        if (replaced == null) {
            replaced = nothing;
            if (family.mayReplace(by, title)) {
                replaced = new long[words];
                addReleases(by, release -> family.replaces(release, title), replaced);
            }
            known[neighbour] = replaced;
        }
        return replaced;
    }

    /** Leaves of a set where a title and its neighbour at this place stand against each other. */
    void keepAgainst(int title, int neighbour, long[] set) {
        int other = family.neighbours(title)[neighbour];
        if (family.conflict(title, other)) {
            return;
        }
        long[] one = replacedBy(title, neighbour);
        long[] back = replacedBy(other, family.back(title, neighbour));
        sets.keepEither(set, one, back);
    }

    /** Where the device meets the need of this place. */
    long[] meeting(int deviceNeed) {
        long[] known = deviceNeeds[deviceNeed];
        if (known == null) {
            known = new long[words];
            outside.addMeeting(deviceNeed, lanes, known);
            deviceNeeds[deviceNeed] = known;
        }
        return known;
    }

    /** What that is as a decision; {@link Settlement#STAYS} where it is held without an outcome. */
    Decision decision(Causes.Cause cause) {
        int part = cause.part();
        BaseOutcome base = part >= 0 ? turns.share(part).base() : null;
        List<Assignment> deciding = base == null ? List.of() : base.deciding();
        Choice choice = cause.state() == Settlement.State.IMPLIED ? choice(cause.title(), part) : null;
        return Settlement.decision(cause.state(), deciding, choice, family, cause.by(), cause.reason());
    }
}
