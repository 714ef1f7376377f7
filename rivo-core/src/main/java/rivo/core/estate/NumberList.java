package rivo.core.estate;

import java.util.Arrays;

/** Numbers, one after the other. Of one thread. */
final class NumberList {

    private static final int[] NONE = {};

    private int[] numbers;
    private int n;

    /** @param expected how many may come; more may, too */
    NumberList(int expected) {
        this.numbers = expected == 0 ? NONE : new int[expected];
    }

    void add(int number) {
        if (n == numbers.length) {
            numbers = Arrays.copyOf(numbers, 2 * n + 1);
        }
        numbers[n++] = number;
    }

    /** All of them; nothing may be added any more. */
    int[] toArray() {
        return n == numbers.length ? numbers : Arrays.copyOf(numbers, n);
    }
}
