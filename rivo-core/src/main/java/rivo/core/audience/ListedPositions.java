package rivo.core.audience;

import java.util.Arrays;
import java.util.function.IntConsumer;

/** A few positions over a wide span: sorted numbers, never changed. */
final class ListedPositions extends Positions {

    private final int[] sorted;

    ListedPositions(int[] sorted) {
        this.sorted = sorted;
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

    /** Where the first member at or after the position stands. */
    private int index(int position) {
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
    public int countIn(int from, int to) {
        return Math.max(0, index(to) - index(from));
    }

    /** Those members whose bits are set; all of them, this very set. */
    Positions and(Words words) {
        int[] kept = null;
        int n = 0;
        for (int i = 0; i < sorted.length; i++) {
            if (words.contains(sorted[i])) {
                if (kept != null) {
                    kept[n] = sorted[i];
                }
                n++;
            } else if (kept == null) {
                kept = Arrays.copyOf(sorted, sorted.length);
                n = i;
            }
        }
        return kept == null ? this : ofSorted(Arrays.copyOf(kept, n));
    }

    @Override
    void addTo(Words words) {
        for (int p : sorted) {
            words.add(p);
        }
    }

    @Override
    void removeFrom(Words words) {
        for (int p : sorted) {
            words.remove(p);
        }
    }

    @Override
    void keepIn(Words words) {
        int next = 0;
        for (int p : sorted) {
            words.clear(next, p);
            next = p + 1;
        }
        words.clear(next, Integer.MAX_VALUE);
    }
}
