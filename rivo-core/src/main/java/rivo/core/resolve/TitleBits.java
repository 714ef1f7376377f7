package rivo.core.resolve;

import java.util.Arrays;

/** What is known and decided of one title at the units of some {@link Lanes}: a bit for each. Of one thread. */
final class TitleBits {

    private static final int[] NO_NUMBERS = {};
    private static final long[][] NO_SETS = {};

    /** Where it has a base outcome, and where it is present. */
    final long[] assigned;
    final long[] present;
    /** Where it comes (it is accepted or implied), and where it comes or is a holder. */
    final long[] comes;
    final long[] standing;

    /** Whether others need it: only then the following are known. */
    final boolean needed;
    /** Where something is decided; of one that nobody needs, that is where it has had its turn. */
    final long[] decided;
    /** Where its base outcome is one of these. */
    final long[] required;
    final long[] available;
    final long[] uninstall;
    final long[] replaced;
    final long[] displaced;
    /** Where it came to its base outcome in its turn. */
    final long[] kept;
    /** Where it is being pulled in for the title whose turn it is; between two turns nowhere. */
    final long[] pulling;

    /** All of these that are its own; and those of them that are something else after turns than before all. */
    private final long[][] sets;
    private final long[][] decisions;

    /** Its ways of being present: how many of the versions asked of it are reached, and where. */
    private int[] reached = NO_NUMBERS;
    private long[][] ways = NO_SETS;
    private int wayCount;

    /** Whether another may stand against it: only then it is known when it began to stand. */
    private final boolean opposed;

    /** When it began to stand where, by steps that ascend: among the words from one to another. */
    private int[] steps = NO_NUMBERS;
    private int[] firstWords = NO_NUMBERS;
    private int[] endWords = NO_NUMBERS;
    /** As many sets as there were at most so far: memory that has just been written to is quicker than new one. */
    private long[][] stood = NO_SETS;
    private int stoodCount;

    /** @param nothing an empty set, which stays so */
    TitleBits(long[] nothing, boolean opposed, boolean needed) {
        int words = nothing.length;
        this.opposed = opposed;
        this.needed = needed;
        assigned = new long[words];
        present = new long[words];
        comes = new long[words];
        standing = new long[words];
        decided = needed ? new long[words] : nothing;
        required = needed ? new long[words] : nothing;
        available = needed ? new long[words] : nothing;
        uninstall = needed ? new long[words] : nothing;
        replaced = needed ? new long[words] : nothing;
        displaced = needed ? new long[words] : nothing;
        kept = needed ? new long[words] : nothing;
        pulling = needed ? new long[words] : nothing;
        sets = needed ? new long[][] {assigned, present, comes, standing, decided, required, available, uninstall, replaced, displaced, kept, pulling}
                : new long[][] {assigned, present, comes, standing};
        decisions = needed ? new long[][] {decided, comes, standing, replaced, displaced, kept} : new long[][] {comes, standing};
    }

    /** Forgets everything, for other units. */
    void clear() {
        for (long[] bits : sets) {
            Arrays.fill(bits, 0);
        }
        wayCount = 0;
        stoodCount = 0;
    }

    /** Takes over all that is known and decided of the same title elsewhere. */
    void takeOver(TitleBits other) {
        long[][] own = sets;
        long[][] theirs = other.sets;
        for (int i = 0; i < own.length; i++) {
            System.arraycopy(theirs[i], 0, own[i], 0, own[i].length);
        }
        reached = other.reached.clone();
        ways = other.ways.clone();
        wayCount = other.wayCount;
        stoodCount = 0;
        for (int i = 0; i < other.stoodCount; i++) {
            note(other.steps[i], other.stood[i], other.firstWords[i], other.endWords[i]);
        }
    }

    /**
     * Takes over what was decided of the same title elsewhere at some units, where the same was decided before.
     *
     * @param since the first step of that
     */
    void takeOver(TitleBits other, long[] at, int from, int to, int since) {
        for (int i = other.firstSince(since); i < other.stoodCount; i++) {
            stands(other.steps[i], other.stood[i], other.firstWords[i], other.endWords[i]);
        }
        long[][] own = decisions;
        long[][] theirs = other.decisions;
        for (int i = 0; i < own.length; i++) {
            for (int w = from; w < to; w++) {
                own[i][w] ^= (own[i][w] ^ theirs[i][w]) & at[w];
            }
        }
    }

    /**
     * Finds out at which of some units something else is decided than of the same title elsewhere, where that has just been decided.
     *
     * @param since the first step of that
     * @param sameReleases whether its release is the same here and there
     * @param anything where anything is different: as it was before at all units, as it is afterwards at these
     * @param standing where it does not stand alike, or not since the same step, or not with the same release
     */
    void compare(TitleBits other, long[] at, int from, int to, int since, boolean sameReleases, long[] anything, long[] standing) {
        long[][] own = decisions;
        long[][] theirs = other.decisions;
        for (int w = from; w < to; w++) {
            // What has stood since different steps in both still does, if it has not begun again.
            long both = this.standing[w] & other.standing[w] & (sameReleases ? standing[w] : -1);
            standing[w] = standing[w] & ~at[w] | (both | this.standing[w] ^ other.standing[w] | comes[w] ^ other.comes[w]) & at[w];
        }
        compareSteps(other, at, from, to, since, standing);
        for (int w = from; w < to; w++) {
            long different = standing[w];
            for (int i = 0; i < own.length; i++) {
                different |= own[i][w] ^ theirs[i][w];
            }
            anything[w] = anything[w] & ~at[w] | different & at[w];
        }
    }

    private void compareSteps(TitleBits other, long[] at, int from, int to, int since, long[] into) {
        int i = firstSince(since);
        int j = other.firstSince(since);
        while (i < stoodCount || j < other.stoodCount) {
            int step = i == stoodCount ? Integer.MAX_VALUE : steps[i];
            int otherStep = j == other.stoodCount ? Integer.MAX_VALUE : other.steps[j];
            for (int w = from; w < to; w++) {
                long here = step <= otherStep ? stoodAt(i, w) : 0;
                long there = otherStep <= step ? other.stoodAt(j, w) : 0;
                into[w] |= (here ^ there) & at[w];
            }
            i += step <= otherStep ? 1 : 0;
            j += otherStep <= step ? 1 : 0;
        }
    }

    private long stoodAt(int i, int word) {
        return word >= firstWords[i] && word < endWords[i] ? stood[i][word] : 0;
    }

    /** The first of those that began at this step or later. */
    private int firstSince(int step) {
        int i = stoodCount;
        while (i > 0 && steps[i - 1] >= step) {
            i--;
        }
        return i;
    }

    /** Something is decided there; of one that nobody needs that need not be noted. */
    void decide(long[] where, int from, int to) {
        if (needed) {
            Bits.add(decided, where, from, to);
        }
    }

    void assigned(Outcome outcome, long[] where) {
        Bits.add(assigned, where);
        if (needed) {
            switch (outcome) {
                case REQUIRED -> Bits.add(required, where);
                case AVAILABLE -> Bits.add(available, where);
                case UNINSTALL -> Bits.add(uninstall, where);
                default -> { }
            }
        }
    }

    void present(int versions, long[] where) {
        Bits.add(present, where);
        if (wayCount == reached.length) {
            reached = Arrays.copyOf(reached, 2 * wayCount + 1);
            ways = Arrays.copyOf(ways, 2 * wayCount + 1);
        }
        reached[wayCount] = versions;
        ways[wayCount++] = where;
    }

    /** Adds where it is present and reaches so many of the versions that are asked of it. */
    void addReaching(int versions, long[] into) {
        addReaching(versions, into, 0, into.length);
    }

    /** The same among the words from one to another. */
    void addReaching(int versions, long[] into, int from, int to) {
        for (int i = 0; i < wayCount; i++) {
            if (reached[i] >= versions) {
                Bits.add(into, ways[i], from, to);
            }
        }
    }

    /** Writes into a set where, of some, it may be pulled in: it is required, or offered or nobody's where no seats are counted, and not decided otherwise. */
    void findFree(long[] among, boolean seats, long[] into, int from, int to) {
        for (int w = from; w < to; w++) {
            long may = required[w] | (seats ? 0 : available[w] | ~assigned[w]);
            into[w] = among[w] & may & ~pulling[w] & (~decided[w] | kept[w] & available[w]);
        }
    }

    /** It begins to stand there; again, where it was a holder because it was needed. */
    void stands(int step, long[] where, int from, int to) {
        boolean again = opposed && needed && Bits.meet(standing, where, from, to);
        Bits.add(standing, where, from, to);
        if (again) {
            for (int i = 0; i < stoodCount; i++) {
                Bits.remove(stood[i], where, Math.max(from, firstWords[i]), Math.min(to, endWords[i]));
            }
        }
        if (opposed) {
            note(step, where, from, to);
        }
    }

    private void note(int step, long[] where, int from, int to) {
        if (stoodCount == steps.length) {
            steps = Arrays.copyOf(steps, 2 * stoodCount + 1);
            firstWords = Arrays.copyOf(firstWords, steps.length);
            endWords = Arrays.copyOf(endWords, steps.length);
            stood = Arrays.copyOf(stood, steps.length);
        }
        if (stood[stoodCount] == null) {
            stood[stoodCount] = new long[standing.length];
        }
        steps[stoodCount] = step;
        firstWords[stoodCount] = from;
        endWords[stoodCount] = to;
        System.arraycopy(where, from, stood[stoodCount++], from, to - from);
    }

    int stoodCount() {
        return stoodCount;
    }

    int step(int i) {
        return steps[i];
    }

    /** Writes into a set where it began to stand at that step, of what is in two others; whether that is anywhere. */
    boolean stood(int i, long[] one, long[] other, long[] into, int from, int to) {
        long[] began = stood[i];
        int begin = Math.max(from, firstWords[i]);
        int end = Math.min(to, endWords[i]);
        long any = 0;
        for (int w = begin; w < end; w++) {
            any |= one[w] & other[w] & began[w];
        }
        if (any == 0) {
            return false;
        }
        Arrays.fill(into, from, to, 0);
        for (int w = begin; w < end; w++) {
            into[w] = one[w] & other[w] & began[w];
        }
        return true;
    }
}
