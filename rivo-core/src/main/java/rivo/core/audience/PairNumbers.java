package rivo.core.audience;

import java.util.List;

/**
 * The numbers of a list of pairs, side by side: finding those that may hold somewhere reads a few numbers in a row, and
 * goes to no pair that does not. Immutable.
 */
public final class PairNumbers {

    private final int[] numbers;
    private final Pair.Sureness[] sureness;

    private PairNumbers(int[] numbers, Pair.Sureness[] sureness) {
        this.numbers = numbers;
        this.sureness = sureness;
    }

    public static PairNumbers of(List<Pair> pairs) {
        return new PairNumbers(pairs.stream().mapToInt(Pair::number).toArray(),
                pairs.stream().map(Pair::sureness).toArray(Pair.Sureness[]::new));
    }

    /** The first place from {@code from} on of a pair that may hold where the row was taken; the list's end without one. */
    public int next(TargetRow row, int from) {
        int at = from;
        while (at < numbers.length && !row.has(numbers[at])) {
            at++;
        }
        return at;
    }

    /** Whether the pair at this place, which may hold where the row was taken, is a candidate there without asking it. */
    public boolean isCertain(int at, TargetRow row) {
        return sureness[at].isSure(row);
    }
}
