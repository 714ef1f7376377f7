package rivo.core.audience;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.Predicate;

/**
 * For each distinct value the positions that have it: a question is asked once of each value, whatever the number of
 * devices. Immutable.
 *
 * @param <T> a value, compared by {@code equals}
 */
final class Postings<T> {

    private final List<T> distinct;
    /** Where the positions of each value begin in {@link #members}; one entry more than values. */
    private final int[] start;
    private final int[] members;
    private final int size;
    /** Whether every position has exactly one value. */
    private final boolean exactlyOne;

    private Postings(List<T> distinct, int[] start, int[] members, int size, boolean exactlyOne) {
        this.distinct = distinct;
        this.start = start;
        this.members = members;
        this.size = size;
        this.exactlyOne = exactlyOne;
    }

    /** @param values the values at each position; none for a position without one */
    static <T> Postings<T> of(int size, IntFunction<List<T>> values) {
        return of(size, Blocks.inParts(size, (from, to) -> CodedRun.of(from, to, values)));
    }

    /**
     * The postings of all positions from some runs of them.
     *
     * @param runs in ascending order; a run without any value may be left out
     */
    static <T> Postings<T> of(int size, List<CodedRun<T>> runs) {
        Codes<T> codes = new Codes<>();
        List<Part<T>> parts = Blocks.sideBySide(size, runs).map(Part::of).toList();
        parts.forEach(part -> part.renumber(codes));
        int[] start = new int[codes.distinct().size() + 1];
        parts.forEach(part -> part.addCounts(start));
        for (int c = 0; c + 1 < start.length; c++) {
            start[c + 1] += start[c];
        }
        int[] members = new int[start[start.length - 1]];
        int[] next = start.clone();
        parts.forEach(part -> part.placeAfter(next));
        Blocks.sideBySide(size, parts).forEach(part -> part.run.layOut(part.begins, members));
        return new Postings<>(codes.distinct(), start, members, size,
                members.length == size && runs.stream().allMatch(CodedRun::hasExactlyOneEach));
    }

    /**
     * A run on its way into the postings of all.
     *
     * @param codes what each of its codes is among all
     * @param counts how many members each of its codes has
     * @param begins where these begin
     */
    private record Part<T>(CodedRun<T> run, int[] codes, int[] counts, int[] begins) {

        static <T> Part<T> of(CodedRun<T> run) {
            int[] counts = run.counts();
            return new Part<>(run, new int[counts.length], counts, new int[counts.length]);
        }

        void renumber(Codes<T> all) {
            Arrays.setAll(codes, c -> all.of(run.distinct().get(c)));
        }

        void addCounts(int[] start) {
            for (int c = 0; c < codes.length; c++) {
                start[codes[c] + 1] += counts[c];
            }
        }

        /** @param next where the members of each code that come next begin; it is moved along */
        void placeAfter(int[] next) {
            for (int c = 0; c < codes.length; c++) {
                begins[c] = next[codes[c]];
                next[codes[c]] += counts[c];
            }
        }
    }

    /** The same positions under values made of these. */
    <R> Postings<R> map(Function<T, R> change) {
        return new Postings<>(Blocks.sideBySide(size, distinct).map(change).toList(), start, members, size, exactlyOne);
    }

    /** The positions that have a value which satisfies the test. Costs a test of each value, and a step for each member. */
    Positions where(Predicate<T> test) {
        BitSet accepted = new BitSet(distinct.size());
        int members = 0;
        for (int c = 0; c < distinct.size(); c++) {
            if (test.test(distinct.get(c))) {
                accepted.set(c);
                members += start[c + 1] - start[c];
            }
        }
        if (exactlyOne && members > size / 2) {
            accepted.flip(0, distinct.size());
            return Positions.range(0, size).without(union(accepted));
        }
        return union(accepted);
    }

    /** The distinct values; their places are their codes. */
    List<T> distinct() {
        return distinct;
    }

    /** How many positions have the value of this code; one that has it twice counts twice. */
    int count(int code) {
        return start[code + 1] - start[code];
    }

    /** The positions that have one of the values of these codes. */
    Positions of(Positions codes) {
        BitSet accepted = new BitSet(distinct.size());
        codes.forEach(accepted::set);
        return union(accepted);
    }

    private Positions only(int code) {
        int[] sorted = Arrays.copyOfRange(members, start[code], start[code + 1]);
        int n = 1;
        for (int i = 1; i < sorted.length; i++) {
            if (sorted[i] != sorted[n - 1]) {
                sorted[n++] = sorted[i];
            }
        }
        return Positions.ofSorted(n == sorted.length ? sorted : Arrays.copyOf(sorted, n));
    }

    private Positions union(BitSet codes) {
        if (codes.cardinality() == 1) {
            return only(codes.nextSetBit(0));
        }
        BitBuffer words = new BitBuffer(0, size);
        long[] raw = words.raw();
        for (int c = codes.nextSetBit(0); c >= 0; c = codes.nextSetBit(c + 1)) {
            for (int i = start[c]; i < start[c + 1]; i++) {
                raw[members[i] >> 6] |= 1L << members[i];
            }
        }
        return words.toPositions();
    }
}
