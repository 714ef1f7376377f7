package rivo.core.audience;

import java.util.Arrays;
import java.util.function.IntConsumer;

/** A few positions over a wide span: sorted numbers, never changed. */
final class ListedPositions extends Positions {

    /** How many members, or words, are passed over in the time in which one position is looked up. */
    private static final int LISTED_LOOK = 16;
    private static final int WORDS_LOOK = 4;

    private final int[] sorted;

    ListedPositions(int[] sorted) {
        this.sorted = sorted;
    }

    /** Its own: not to be changed. */
    int[] sorted() {
        return sorted;
    }

    @Override
    public int first() {
        return sorted[0];
    }

    @Override
    public int end() {
        return sorted[sorted.length - 1] + 1;
    }

    @Override
    public int size() {
        return sorted.length;
    }

    @Override
    public boolean contains(int position) {
        return position >= sorted[0] && Arrays.binarySearch(sorted, position) >= 0;
    }

    @Override
    public void forEach(IntConsumer consumer) {
        for (int p : sorted) {
            consumer.accept(p);
        }
    }

    /** Whether looking up each of these in a set takes less than passing over all members or words of that. */
    boolean isQuickerToLookUpIn(Positions set) {
        return set instanceof ListedPositions listed ? (long) sorted.length * LISTED_LOOK < listed.sorted.length
                : (long) sorted.length * WORDS_LOOK < set.end() - set.first() >> 6;
    }

    /** Where the first member at or after the position stands. */
    int index(int position) {
        int found = Arrays.binarySearch(sorted, position);
        return found >= 0 ? found : -found - 1;
    }

    @Override
    public Positions in(int from, int to) {
        if (from <= first() && end() <= to) {
            return this;
        }
        int a = index(from);
        int b = index(to);
        return a >= b ? NONE : ofSorted(Arrays.copyOfRange(sorted, a, b));
    }

    @Override
    Positions shifted(int by) {
        return new ListedPositions(Arrays.stream(sorted).map(p -> p + by).toArray());
    }

    @Override
    public int countIn(int from, int to) {
        return Math.max(0, index(to) - index(from));
    }

    /** Those members whose bits are set; all of them, this very set. */
    Positions and(BitBuffer words) {
        return lookUp(words.raw(), words.firstWord(), words.from(), words.to(), true);
    }

    /** Those that are among the others, or those that are not. */
    Positions lookUp(PackedPositions others, boolean among) {
        return lookUp(others.words(), others.firstWord(), others.first(), others.end(), among);
    }

    /**
     * Those whose bits are set, or those whose bits are not.
     *
     * @param start of the positions that have bits, and {@code end} after the last
     */
    private Positions lookUp(long[] bits, int firstWord, int start, int end, boolean set) {
        int from = start <= sorted[0] ? 0 : index(start);
        int to = end > sorted[sorted.length - 1] ? sorted.length : index(end);
        int[] kept = new int[set ? to - from : sorted.length];
        int n = 0;
        if (!set) {
            System.arraycopy(sorted, 0, kept, 0, from);
            n = from;
        }
        // Each is written, and written over where it was not to be kept: which one is kept cannot be foreseen.
        int flip = set ? 0 : 1;
        for (int i = from; i < to; i++) {
            int p = sorted[i];
            kept[n] = p;
            n += (int) (bits[(p >> 6) - firstWord] >>> p & 1) ^ flip;
        }
        if (!set) {
            System.arraycopy(sorted, to, kept, n, sorted.length - to);
            n += sorted.length - to;
        }
        return n == sorted.length ? this : ofSorted(n == kept.length ? kept : Arrays.copyOf(kept, n));
    }

    /** Those that are among the other's, or those that are not; both are walked together. */
    Positions walk(ListedPositions other, boolean among) {
        int[] kept = new int[sorted.length];
        int n = 0;
        int j = 0;
        for (int p : sorted) {
            while (j < other.sorted.length && other.sorted[j] < p) {
                j++;
            }
            if ((j < other.sorted.length && other.sorted[j] == p) == among) {
                kept[n++] = p;
            }
        }
        return n == sorted.length ? this : ofSorted(Arrays.copyOf(kept, n));
    }

    boolean meetsAny(Positions other) {
        for (int p : sorted) {
            if (other.contains(p)) {
                return true;
            }
        }
        return false;
    }

    /** Whether walking both is cheaper than looking each of these up in the other. */
    boolean isWorthWalking(ListedPositions other) {
        return other.sorted.length < 8L * sorted.length;
    }

    @Override
    void addTo(BitBuffer words) {
        long[] raw = words.raw();
        int firstWord = words.firstWord();
        int end = words.to();
        for (int i = index(words.from()); i < sorted.length && sorted[i] < end; i++) {
            raw[(sorted[i] >> 6) - firstWord] |= 1L << sorted[i];
        }
    }

    @Override
    public int addTo(long[] words, int from, int passed) {
        int low = passed;
        int high = passed;
        for (int step = 1; high < sorted.length && sorted[high] < from; step *= 2) {
            low = high + 1;
            high += step;
        }
        int i = Arrays.binarySearch(sorted, low, Math.min(high, sorted.length), from);
        i = i < 0 ? -i - 1 : i;
        for (int end = from + words.length * Long.SIZE; i < sorted.length && sorted[i] < end; i++) {
            words[sorted[i] - from >> 6] |= 1L << sorted[i];
        }
        return i;
    }

    @Override
    void removeFrom(BitBuffer words) {
        long[] raw = words.raw();
        int firstWord = words.firstWord();
        for (int i = index(words.from()), end = index(words.to()); i < end; i++) {
            raw[(sorted[i] >> 6) - firstWord] &= ~(1L << sorted[i]);
        }
    }

    @Override
    void keepIn(BitBuffer words) {
        int next = words.from();
        for (int i = index(words.from()), end = index(words.to()); i < end; i++) {
            words.clear(next, sorted[i]);
            next = sorted[i] + 1;
        }
        words.clear(next, words.to());
    }

    @Override
    boolean hasMembersOf(Positions other) {
        return Arrays.equals(sorted, ((ListedPositions) other).sorted);
    }
}
