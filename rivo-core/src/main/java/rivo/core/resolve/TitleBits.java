package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** What is known and decided of one title at the units of some {@link Lanes}: a bit for each. Of one thread. */
final class TitleBits {

    /** Where it has a base outcome; and of one that others need, where that is one of these. */
    final long[] assigned;
    final long[] required;
    final long[] available;
    final long[] uninstall;
    final long[] present;

    /** Where something is decided: it comes (it is accepted or implied), it is replaced, displaced, or neither and stays what it was or is blocked. */
    final long[] decided;
    final long[] comes;
    final long[] replaced;
    final long[] displaced;
    /** Where it came to its base outcome in its turn. */
    final long[] kept;
    /** Where it comes or is a holder. */
    final long[] standing;
    /** Where it is being pulled in for the title whose turn it is. */
    final long[] pulling;

    /** Its ways of being present: how many of the versions asked of it are reached, and where. */
    private int[] reached = new int[2];
    private long[][] ways = new long[2][];
    private int wayCount;

    /** By neighbour: where the release of that one replaces this; null as long as nobody has asked. */
    final long @Nullable [][] replacedBy;
    /** Where it has no base outcome: by variant, where that is the newest that fits; null as long as nobody has asked. */
    long @Nullable [] @Nullable [] newest;

    /** When it began to stand where, by steps that ascend: the words from this one on. */
    private int[] steps = new int[2];
    private int[] firstWords = new int[2];
    private long[][] stood = new long[2][];
    private int stoodCount;

    TitleBits(int words, int neighbours) {
        assigned = new long[words];
        required = new long[words];
        available = new long[words];
        uninstall = new long[words];
        present = new long[words];
        decided = new long[words];
        comes = new long[words];
        replaced = new long[words];
        displaced = new long[words];
        kept = new long[words];
        standing = new long[words];
        pulling = new long[words];
        replacedBy = new long[neighbours][];
    }

    /** Forgets everything, for other units. */
    void clear() {
        for (long[] bits : new long[][] {assigned, required, available, uninstall, present, decided, comes, replaced, displaced, kept, standing,
            pulling}) {
            Arrays.fill(bits, 0);
        }
        wayCount = 0;
        Arrays.fill(replacedBy, null);
        newest = null;
        stoodCount = 0;
    }

    void assigned(long[] where) {
        Bits.add(assigned, where);
    }

    /** Says more of titles that others need. */
    void assigned(Outcome outcome, long[] where) {
        switch (outcome) {
            case REQUIRED -> Bits.add(required, where);
            case AVAILABLE -> Bits.add(available, where);
            case UNINSTALL -> Bits.add(uninstall, where);
            default -> { }
        }
    }

    void present(int versions, long[] where) {
        Bits.add(present, where);
        if (wayCount == reached.length) {
            reached = Arrays.copyOf(reached, 2 * wayCount);
            ways = Arrays.copyOf(ways, 2 * wayCount);
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
            steps = Arrays.copyOf(steps, 2 * stoodCount);
            firstWords = Arrays.copyOf(firstWords, 2 * stoodCount);
            stood = Arrays.copyOf(stood, 2 * stoodCount);
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
