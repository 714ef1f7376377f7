package rivo.core.resolve;

import java.util.Arrays;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

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
    private final long[] nothing;
    private Lanes lanes;

    FamilyBits(Family family, Turns turns, Outside outside, LaneSets sets) {
        this.family = family;
        this.turns = turns;
        this.outside = outside;
        this.sets = sets;
        this.words = sets.words();
        this.titles = new TitleBits[family.titles().size()];
        this.known = new boolean[titles.length];
        this.shares = new long[turns.size()][];
        this.deviceNeeds = new long[family.deviceNeeds().size()][];
        this.offered = new int[titles.length][];
        this.nothing = new long[words];
        this.lanes = Lanes.span(0, 0);
    }

    /** Forgets all for these units. */
    void begin(Lanes next) {
        lanes = next;
        Arrays.fill(known, false);
        Arrays.fill(shares, null);
        Arrays.fill(deviceNeeds, null);
    }

    /** The sets that are looked at now. */
    LaneSets sets() {
        return sets;
    }

    /** Whether anything was said or decided of the title. */
    boolean knows(int title) {
        return known[title];
    }

    TitleBits at(int title) {
        TitleBits bits = titles[title];
        if (bits == null) {
            bits = new TitleBits(nothing, family.neighbours(title).length, family.isNeeded(title));
            titles[title] = bits;
        } else if (!known[title]) {
            bits.clear();
        }
        known[title] = true;
        return bits;
    }

    /** @param where the share is: the caller's, who leaves it as it is */
    void assigned(int share, long[] where) {
        Turns.Share of = turns.share(share);
        shares[share] = where;
        at(of.title()).assigned(of.base().outcome(), where);
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

    @Nullable Choice choice(int title, int part) {
        return part >= 0 ? turns.share(part).base().choice() : outside.choices(title).offered(-1 - part);
    }

    /** By variant, where a title without a base outcome has it as the newest that fits; null where nowhere. */
    long[] @Nullable [] newest(int title) {
        TitleBits of = at(title);
        long[] @Nullable [] known = of.newest;
        if (known == null) {
            known = findNewest(of, outside.choices(title));
            of.newest = known;
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
                lanes.mark(fits, taking);
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
        TitleBits of = at(title);
        long[] replaced = of.replacedBy[neighbour];
        if (replaced == null) {
            int other = family.neighbours(title)[neighbour];
            replaced = nothing;
            if (family.mayReplace(other, title)) {
                replaced = new long[words];
                addReleases(other, release -> family.replaces(release, title), replaced);
            }
            of.replacedBy[neighbour] = replaced;
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
}
