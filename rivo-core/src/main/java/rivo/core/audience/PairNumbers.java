package rivo.core.audience;

import java.util.List;

/**
 * The numbers of a list of pairs, side by side: finding those that may hold somewhere reads a few numbers in a row, and
 * goes to no pair that does not. Immutable.
 */
public final class PairNumbers {

    private final int[] numbers;

    private PairNumbers(int[] numbers) {
        this.numbers = numbers;
    }

    public static PairNumbers of(List<Pair> pairs) {
        return new PairNumbers(pairs.stream().mapToInt(Pair::number).toArray());
    }

    /** The first place from {@code from} on of a pair that may hold where the row was taken; the list's end without one. */
    public int next(TargetRow row, int from) {
        int at = from;
        while (at < numbers.length && !row.has(numbers[at])) {
            at++;
        }
        return at;
    }
}
