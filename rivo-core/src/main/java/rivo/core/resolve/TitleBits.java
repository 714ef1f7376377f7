package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

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

    /** By neighbour: where the release of that one replaces this; null as long as nobody has asked. */
    final long @Nullable [][] replacedBy;
    /** Where it has no base outcome: by variant, where that is the newest that fits; null as long as nobody has asked. */
    long @Nullable [] @Nullable [] newest;

    /** When it began to stand where, by steps that ascend: the words from this one on. */
    private int[] steps = NO_NUMBERS;
    private int[] firstWords = NO_NUMBERS;
    private long[][] stood = NO_SETS;
    private int stoodCount;

    /** @param nothing an empty set, which stays so */
    TitleBits(long[] nothing, int neighbours, boolean needed) {
        int words = nothing.length;
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
        replacedBy = new long[neighbours][];
    }

    /** Forgets everything, for other units. */
    void clear() {
        for (long[] bits : new long[][] {assigned, present, decided, comes, standing}) {
            Arrays.fill(bits, 0);
        }
        for (long[] bits : needed ? new long[][] {required, available, uninstall, replaced, displaced, kept, pulling} : NO_SETS) {
            Arrays.fill(bits, 0);
        }
        wayCount = 0;
        Arrays.fill(replacedBy, null);
        newest = null;
        stoodCount = 0;
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
        if (replacedBy.length == 0) {
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

    /** Leaves of a set where it began to stand at that step. */
    void keepStood(int i, long[] set, int from, int to) {
        for (int w = from; w < to; w++) {
            int at = w - firstWords[i];
            set[w] &= at >= 0 && at < stood[i].length ? stood[i][at] : 0;
        }
    }
}
