package rivo.core.audience;

import java.util.Arrays;
import java.util.List;

/**
 * For each position the sets that hold it, side by side: what a hundred probes into sets of their own would tell stands
 * in one short run of memory. Immutable.
 */
final class Memberships {

    private final List<Positions> sets;
    private final int[] numbers;
    /** Where those of each position begin in {@link #holding}; one entry more than positions. */
    private final int[] start;
    private final int[] holding;

    /**
     * Costs two passes over the sets' members.
     *
     * @param size how many positions there are
     * @param numbers what each of the sets is called
     */
    Memberships(int size, List<Positions> sets, int[] numbers) {
        this.sets = sets;
        this.numbers = numbers;
        this.start = new int[size + 1];
        sets.forEach(set -> set.forEach(p -> start[p + 1]++));
        for (int p = 0; p < size; p++) {
            start[p + 1] += start[p];
        }
        this.holding = new int[start[size]];
        int[] next = start.clone();
        for (int s = 0; s < numbers.length; s++) {
            int number = numbers[s];
            sets.get(s).forEach(p -> holding[next[p]++] = number);
        }
    }

    private Memberships(List<Positions> sets, int[] numbers, int[] start, int[] holding) {
        this.sets = sets;
        this.numbers = numbers;
        this.start = start;
        this.holding = holding;
    }

    /** Whether it was made of the very same sets, of the same names. */
    boolean isOf(int size, List<Positions> otherSets, int[] otherNumbers) {
        boolean same = start.length == size + 1 && areCalled(otherNumbers);
        for (int s = 0; same && s < numbers.length; s++) {
            same = sets.get(s) == otherSets.get(s);
        }
        return same;
    }

    /**
     * Of the same sets where everyone has moved to; costs a copy.
     *
     * @param moves in which none is new
     * @param now the same sets, of the positions there
     */
    Memberships moved(Moves moves, int size, List<Positions> now) {
        int[] from = new int[size + 1];
        int before = start.length - 1;
        for (int p = 0; p < before; p++) {
            if (moves.to(p) >= 0) {
                from[moves.to(p) + 1] = start[p + 1] - start[p];
            }
        }
        for (int p = 0; p < size; p++) {
            from[p + 1] += from[p];
        }
        int[] held = new int[from[size]];
        for (int p = 0; p < before; p++) {
            if (moves.to(p) >= 0) {
                System.arraycopy(holding, start[p], held, from[moves.to(p)], start[p + 1] - start[p]);
            }
        }
        return new Memberships(now, numbers, from, held);
    }

    boolean areCalled(int[] names) {
        return Arrays.equals(numbers, names);
    }

    /** Adds what the sets that hold this position are called. */
    void addTo(TargetRow row, int position) {
        for (int i = start[position]; i < start[position + 1]; i++) {
            row.add(holding[i]);
        }
    }
}
