package rivo.core.resolve;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Which turns matter to an edit, and at which units: in one block after the other, in both states at once. Of one thread.
 *
 * <p><b>How.</b> Turn by turn it is noted where something else may be decided of a title in one state than in the other: where a turn looks at such a title, all that it decides may
 * be something else. Then, from the last turn back, it is noted where a title is looked at by a turn that matters: each of those does, and each that decides something at which one that
 * matters looks later. The others are left out: what they would decide is the same in both states, and nobody who matters looks at it.
 *
 * <p>An undisputed title has no turns, and all that can differ is who is the first that needs it. Where a turn that may decide something else comes to need it, all that need it matter,
 * up to the first that is accepted in any case; where that one comes before, it matters alone.
 */
final class TurnsThatMatter {

    private final FamilyUnits units;
    private final Family family;
    private final Turns turns;
    private final FamilyBits former;
    private final FamilyBits latter;
    private final UndisputedNeeds undisputed;
    private final TurnReach[] reach;
    /** By share, whether it is of an undisputed title, and whether its turn may decide one that is edited. */
    private final boolean[] hasNoTurn;
    private final boolean[] decidesEdited;
    /** By title, the shares that may decide it; and by undisputed title, those that may come to need it. In the order of their turns. */
    private final int[][] deciders;
    private final int[][] askers;
    /** By share, where its turn matters, as far as that is known; null where nowhere. */
    private final long[] @Nullable [] mattering;
    /** By title, where something else may be decided of it, and where a turn that matters looks at it; null where nowhere. */
    private final long[] @Nullable [] differing;
    private final long[] @Nullable [] lookedAt;
    /** By title, where it may be assigned, present or pulled in; null as long as nobody has asked. */
    private final long[] @Nullable [] there;
    /** What is found out of one share or title. */
    private final long[] found;
    private final LaneSets memory;

    /**
     * @param reach of each share
     * @param former what is told of each block in the first state, and {@code latter} in the second
     * @param undisputed the needs for undisputed titles, of which the same are met in both
     */
    TurnsThatMatter(FamilyUnits units, TurnReach[] reach, FamilyBits former, FamilyBits latter, UndisputedNeeds undisputed) {
        this.units = units;
        this.family = units.family();
        this.turns = units.turns();
        this.reach = reach;
        this.former = former;
        this.latter = latter;
        this.undisputed = undisputed;
        int titles = family.titles().size();
        this.hasNoTurn = new boolean[turns.size()];
        this.decidesEdited = new boolean[turns.size()];
        for (int share = 0; share < reach.length; share++) {
            hasNoTurn[share] = units.isUndisputed(turns.share(share).title());
            decidesEdited[share] = Arrays.stream(reach[share].decides()).anyMatch(units.edited()::get);
        }
        int[] inOrder = turns.levels().stream().flatMapToInt(level -> Arrays.stream(level.shares())).toArray();
        this.deciders = byTitle(titles, inOrder, Arrays.stream(reach).map(TurnReach::decides).toArray(int[][]::new));
        this.askers = byTitle(titles, inOrder, Arrays.stream(reach).map(TurnReach::undisputed).toArray(int[][]::new));
        this.memory = new LaneSets(former.sets().words());
        this.found = new long[memory.words()];
        this.mattering = new long[turns.size()][];
        this.differing = new long[titles][];
        this.lookedAt = new long[titles][];
        this.there = new long[titles][];
        memory.lookEverywhere();
    }

    private static int[][] byTitle(int titles, int[] shares, int[][] titlesOf) {
        IntStream.Builder[] byTitle = IntStream.range(0, titles).mapToObj(title -> IntStream.builder()).toArray(IntStream.Builder[]::new);
        for (int share : shares) {
            for (int title : titlesOf[share]) {
                byTitle[title].add(share);
            }
        }
        return Arrays.stream(byTitle).map(some -> some.build().toArray()).toArray(int[][]::new);
    }

    /** Where the turn of a share matters; null where nowhere. */
    long @Nullable [] where(int share) {
        return mattering[share];
    }

    /** Finds that out for the block that has been told, of which nothing has been settled. */
    void find() {
        memory.giveBack(0);
        List.of(mattering, differing, lookedAt, there).forEach(all -> Arrays.fill(all, null));
        List<Turns.Level> levels = turns.levels();
        levels.forEach(this::spread);
        for (int title = 0; title < there.length; title++) {
            addFirstToNeed(title);
            addWhatStaysBehind(title);
        }
        for (int i = levels.size(); i > 0; i--) {
            gather(levels.get(i - 1));
        }
    }

    /** Where some of a level wait for others, their order depends on the unit: so all are asked again as long as there is more. */
    private void spread(Turns.Level level) {
        boolean more;
        do {
            more = false;
            for (int share : level.shares()) {
                more |= spread(share);
            }
        } while (more && level.waiting().length > 0);
    }

    private void gather(Turns.Level level) {
        boolean more;
        do {
            more = false;
            for (int i = level.shares().length; i > 0; i--) {
                more |= gather(level.shares()[i - 1]);
            }
        } while (more && level.waiting().length > 0);
    }

    /** Notes where a share may decide something else; whether that makes any title something else where it was not before. */
    private boolean spread(int share) {
        long[] at = told(share);
        if (at == null) {
            return false;
        }
        if (decidesEdited[share]) {
            System.arraycopy(at, 0, found, 0, found.length);
        } else if (!find(reach[share].looksAt(), differing, at)) {
            return false;
        }
        return add(mattering, share, found) | addEach(differing, reach[share].decides(), found);
    }

    /** Notes where a share matters; whether it looks there at any title at which no such one was known to look. */
    private boolean gather(int share) {
        long[] at = told(share);
        if (at != null && find(reach[share].decides(), lookedAt, at)) {
            add(mattering, share, found);
        }
        long[] all = mattering[share];
        return all != null && addEach(lookedAt, reach[share].looksAt(), all);
    }

    /** Where a share has its turn in one of the states; null where nowhere. */
    private long @Nullable [] told(int share) {
        if (hasNoTurn[share]) {
            return null;
        }
        long[] at = former.share(share);
        return at != null ? at : latter.share(share);
    }

    /** What is present without a base outcome gives way to what comes in the end; and whether an edited title has one may be different. */
    private void addWhatStaysBehind(int title) {
        int[] neighbours = family.neighbours(title);
        if (neighbours.length == 0 || !former.knows(title)) {
            return;
        }
        int[] all = Arrays.copyOf(neighbours, neighbours.length + 1);
        all[neighbours.length] = title;
        long[] present = former.at(title).present;
        if (units.edited().get(title)) {
            addEach(lookedAt, all, present);
        } else if (find(all, differing, present)) {
            Bits.remove(found, former.at(title).assigned);
            addEach(lookedAt, all, found);
        }
    }

    /** Adds whose turns matter for who is the first that needs a title. */
    private void addFirstToNeed(int title) {
        int[] some = askers[title];
        if (some.length == 0) {
            return;
        }
        long[] asked = memory.none();
        for (int share : some) {
            if (mattering[share] != null) {
                Bits.add(asked, mattering[share]);
            }
        }
        Bits.remove(asked, former.at(title).required);
        long[] open = memory.none();
        for (int i = 0; i < some.length && memory.any(asked); i++) {
            long[] at = told(some[i]);
            if (at != null) {
                if (mattering[some[i]] != null) {
                    Bits.addBoth(open, asked, mattering[some[i]]);
                }
                addCertain(some[i], title, at, asked);
            }
        }
        for (int i = 0; i < some.length && memory.any(open); i++) {
            long[] at = told(some[i]);
            if (at != null && memory.meet(open, at)) {
                add(mattering, some[i], memory.both(open, at));
            }
        }
    }

    /** Adds where a share is accepted in any case and needs nothing but the title; and takes that out of where it is asked for who is the first. */
    private void addCertain(int share, int title, long[] at, long[] asked) {
        Family.LocalNeed[] needs = family.needs(turns.share(share).release());
        if (needs.length != 1 || needs[0].title() != title || !memory.meet(asked, at)) {
            return;
        }
        long[] certain = memory.both(asked, at);
        memory.keep(certain, undisputed.met(needs[0]));
        if (mattering[share] != null) {
            Bits.remove(certain, mattering[share]);
        }
        for (int other : family.neighbours(turns.share(share).title())) {
            Bits.remove(certain, there(other));
        }
        add(mattering, share, certain);
        Bits.remove(asked, certain);
    }

    private long[] there(int title) {
        long[] known = there[title];
        if (known == null) {
            known = memory.none();
            for (int share : deciders[title]) {
                long[] at = told(share);
                if (at != null) {
                    Bits.add(known, at);
                }
            }
            if (former.knows(title)) {
                Bits.add(known, former.at(title).present);
            }
            if (units.edited().get(title)) {
                Arrays.fill(known, -1);
            }
            there[title] = known;
        }
        return known;
    }

    /** Finds where any of these is within a set; whether there are any. */
    private boolean find(int[] some, long[] @Nullable [] of, long[] within) {
        boolean any = false;
        for (int one : some) {
            long[] at = of[one];
            if (at != null && any) {
                Bits.addBoth(found, at, within);
            } else if (at != null) {
                Bits.both(at, within, found, 0, within.length);
                any = true;
            }
        }
        return any && Bits.any(found, 0, found.length);
    }

    /** Adds these units; whether any is new. */
    private boolean add(long[] @Nullable [] to, int one, long[] at) {
        long[] known = to[one];
        if (known == null) {
            to[one] = memory.copy(at);
            return true;
        }
        long more = 0;
        for (int w = 0; w < known.length; w++) {
            more |= at[w] & ~known[w];
            known[w] |= at[w];
        }
        return more != 0;
    }

    private boolean addEach(long[] @Nullable [] to, int[] each, long[] at) {
        boolean more = false;
        for (int one : each) {
            more |= add(to, one, at);
        }
        return more;
    }
}
