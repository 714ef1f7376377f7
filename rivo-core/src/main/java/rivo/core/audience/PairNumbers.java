package rivo.core.audience;

import java.util.List;

/**
 * The numbers of a list of pairs, side by side: finding those that may hold somewhere reads a few numbers in a row, and
 * goes to no pair that does not. Immutable.
 */
public final class PairNumbers {

    private final int[] numbers;
    private final boolean[] certain;

    private PairNumbers(int[] numbers, boolean[] certain) {
        this.numbers = numbers;
        this.certain = certain;
    }

    public static PairNumbers of(List<Pair> pairs) {
        boolean[] certain = new boolean[pairs.size()];
        for (int i = 0; i < certain.length; i++) {
            certain[i] = pairs.get(i).isCertain();
        }
        return new PairNumbers(pairs.stream().mapToInt(Pair::number).toArray(), certain);
    }

    /** The first place from {@code from} on of a pair that may hold where the row was taken; the list's end without one. */
    public int next(TargetRow row, int from) {
        int at = from;
        while (at < numbers.length && !row.has(numbers[at])) {
            at++;
        }
        return at;
    }

    /** Whether the pair at this place is a candidate wherever the row says that it may hold. */
    public boolean isCertain(int at) {
        return certain[at];
    }
}
