package rivo.core.resolve;

import java.util.Arrays;

/**
 * Numbers what decisions depend on that relations make, each by two words: the same two have the same number, and numbers count from 0. A flat table, as it
 * is asked for each title of each unit. Of one thread.
 */
final class Causes {

    private static final int FREE = -1;

    private long[] first = new long[1 << 10];
    private long[] second = new long[1 << 10];
    private int[] numbers = filled(1 << 10);
    private int size;

    private static int[] filled(int length) {
        int[] all = new int[length];
        Arrays.fill(all, FREE);
        return all;
    }

    int size() {
        return size;
    }

    /** The number of these two; the next one where they are new. */
    int number(long one, long other) {
        if (2 * size >= numbers.length) {
            grow();
        }
        int at = place(one, other);
        if (numbers[at] == FREE) {
            first[at] = one;
            second[at] = other;
            numbers[at] = size++;
        }
        return numbers[at];
    }

    private int place(long one, long other) {
        long mixed = (one * 0x9e3779b97f4a7c15L ^ other) * 0xbf58476d1ce4e5b9L;
        int at = (int) (mixed >>> 32) & numbers.length - 1;
        while (numbers[at] != FREE && (first[at] != one || second[at] != other)) {
            at = at + 1 & numbers.length - 1;
        }
        return at;
    }

    private void grow() {
        long[] ones = first;
        long[] others = second;
        int[] known = numbers;
        first = new long[2 * known.length];
        second = new long[2 * known.length];
        numbers = filled(2 * known.length);
        for (int i = 0; i < known.length; i++) {
            if (known[i] != FREE) {
                int at = place(ones[i], others[i]);
                first[at] = ones[i];
                second[at] = others[i];
                numbers[at] = known[i];
            }
        }
    }
}
