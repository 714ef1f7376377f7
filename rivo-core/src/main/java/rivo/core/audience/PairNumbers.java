package rivo.core.audience;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The numbers of a list of pairs, side by side: finding those that may hold somewhere reads a few numbers in a row, and
 * goes to no pair that does not. Immutable but for what it remembers of pairs that were asked; safe for any thread.
 */
public final class PairNumbers {

    private final List<Pair> pairs;
    private final int[] numbers;
    /** Null where the pair has not been asked yet. */
    private final Pair.@Nullable Sureness[] sureness;

    private PairNumbers(List<Pair> pairs) {
        this.pairs = List.copyOf(pairs);
        this.numbers = pairs.stream().mapToInt(Pair::number).toArray();
        this.sureness = new Pair.Sureness[numbers.length];
    }

    public static PairNumbers of(List<Pair> pairs) {
        return new PairNumbers(pairs);
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
        Pair.Sureness known = sureness[at];
        if (known == null) {
            known = pairs.get(at).sureness();
            sureness[at] = known;
        }
        return known.isSure(row);
    }
}
