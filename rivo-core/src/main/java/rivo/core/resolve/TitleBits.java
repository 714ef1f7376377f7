package rivo.core.resolve;

import java.util.Arrays;

/** What is known and decided of one title at the units of some {@link Lanes}: a bit for each. Of one thread. */
final class TitleBits {

    private static final int[] NO_NUMBERS = {};
    private static final long[][] NO_SETS = {};

    /** Where it has a base outcome, and where it is present. */
    final long[] assigned;
    final long[] present;
    /** Where something is decided, where it comes (it is accepted or implied), and where it comes or is a holder. */
    final long[] decided;
    final long[] comes;
    final long[] standing;

    /** Whether others need it: only then the following are known. */
    final boolean needed;
    /** Where its base outcome is one of these. */
    final long[] required;
    final long[] available;
    final long[] uninstall;
    final long[] replaced;
    final long[] displaced;
    /** Where it came to its base outcome in its turn. */
    final long[] kept;
    /** Where it is being pulled in for the title whose turn it is. */
    final long[] pulling;

    /** Its ways of being present: how many of the versions asked of it are reached, and where. */
    private int[] reached = NO_NUMBERS;
    private long[][] ways = NO_SETS;
    private int wayCount;

    /** Whether another may stand against it: only then it is known when it began to stand. */
    private final boolean opposed;

    /** When it began to stand where, by steps that ascend: the words from this one on. */
    private int[] steps = NO_NUMBERS;
    private int[] firstWords = NO_NUMBERS;
    private long[][] stood = NO_SETS;
    private int stoodCount;

    /** @param nothing an empty set, which stays so */
    TitleBits(long[] nothing, boolean opposed, boolean needed) {
        int words = nothing.length;
        this.opposed = opposed;
        this.needed = needed;
        assigned = new long[words];
        present = new long[words];
        decided = new long[words];
        comes = new long[words];
        standing = new long[words];
        required = needed ? new long[words] : nothing;
        available = needed ? new long[words] : nothing;
        uninstall = needed ? new long[words] : nothing;
        replaced = needed ? new long[words] : nothing;
        displaced = needed ? new long[words] : nothing;
        kept = needed ? new long[words] : nothing;
        pulling = needed ? new long[words] : nothing;
    }

    /** Forgets everything, for other units. */
    void clear() {
        for (long[] bits : sets()) {
            Arrays.fill(bits, 0);
        }
        wayCount = 0;
        stoodCount = 0;
    }

    /** All that are its own. */
    private long[][] sets() {
        return needed ? new long[][] {assigned, present, decided, comes, standing, required, available, uninstall, replaced, displaced, kept, pulling}
                : new long[][] {assigned, present, decided, comes, standing};
    }

    /** Takes over all that is known and decided of the same title elsewhere. */
    void takeOver(TitleBits other) {
        long[][] own = sets();
        long[][] theirs = other.sets();
        for (int i = 0; i < own.length; i++) {
            System.arraycopy(theirs[i], 0, own[i], 0, own[i].length);
        }
        reached = other.reached.clone();
        ways = other.ways.clone();
        wayCount = other.wayCount;
        steps = other.steps.clone();
        firstWords = other.firstWords.clone();
        stood = new long[other.stood.length][];
        for (int i = 0; i < other.stoodCount; i++) {
            stood[i] = other.stood[i].clone();
        }
        stoodCount = other.stoodCount;
    }

    /** Whether the same is known and decided as of the same title elsewhere. */
    boolean isAs(TitleBits other) {
        return Arrays.deepEquals(sets(), other.sets()) && wayCount == other.wayCount && stoodCount == other.stoodCount
                && Arrays.equals(steps, 0, stoodCount, other.steps, 0, stoodCount)
                && Arrays.equals(firstWords, 0, stoodCount, other.firstWords, 0, stoodCount)
                && Arrays.deepEquals(Arrays.copyOf(stood, stoodCount), Arrays.copyOf(other.stood, stoodCount));
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
        for (int i = 0; i < wayCount; i++) {
            if (reached[i] >= versions) {
                Bits.add(into, ways[i]);
            }
        }
    }

    /** It begins to stand there; again, where it was a holder. */
    void stands(int step, long[] where, int from, int to) {
        boolean again = false;
        for (int w = from; w < to; w++) {
            again |= (standing[w] & where[w]) != 0;
            standing[w] |= where[w];
        }
        if (!opposed) {
            return;
        }
        for (int i = 0; again && i < stoodCount; i++) {
            for (int w = from; w < to; w++) {
                int at = w - firstWords[i];
                if (at >= 0 && at < stood[i].length) {
                    stood[i][at] &= ~where[w];
                }
            }
        }
        if (stoodCount == steps.length) {
            steps = Arrays.copyOf(steps, 2 * stoodCount + 1);
            firstWords = Arrays.copyOf(firstWords, 2 * stoodCount + 1);
            stood = Arrays.copyOf(stood, 2 * stoodCount + 1);
        }
        steps[stoodCount] = step;
        firstWords[stoodCount] = from;
        stood[stoodCount++] = Arrays.copyOfRange(where, from, to);
    }

    int stoodCount() {
        return stoodCount;
    }

    int step(int i) {
        return steps[i];
    }

    /** Writes into a set where it began to stand at that step, of what is in two others; whether that is anywhere. */
    boolean stood(int i, long[] one, long[] other, long[] into, int from, int to) {
        int first = firstWords[i];
        int begin = Math.max(from, first);
        int end = Math.min(to, first + stood[i].length);
        long any = 0;
        for (int w = begin; w < end; w++) {
            any |= one[w] & other[w] & stood[i][w - first];
        }
        if (any == 0) {
            return false;
        }
        Arrays.fill(into, from, to, 0);
        for (int w = begin; w < end; w++) {
            into[w] = one[w] & other[w] & stood[i][w - first];
        }
        return true;
    }
}
