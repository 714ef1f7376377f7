package rivo.core.audience;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

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
        return joined(size, Blocks.inParts(size, (from, to) -> {
            Builder<T> builder = new Builder<>(from, to);
            Blocks.forEach(from, to, values, List::isEmpty, (position, list) -> {
                for (int i = 0; i < list.size(); i++) {
                    builder.add(position, list.get(i));
                }
            });
            return builder.build();
        }));
    }

    /**
     * The postings of all positions from those of some runs of them.
     *
     * @param parts in ascending order; a run without any value may be left out
     */
    static <T> Postings<T> joined(int size, List<Postings<T>> parts) {
        if (parts.size() == 1) {
            return new Postings<>(parts.get(0), size);
        }
        Codes<T> codes = new Codes<>();
        List<int[]> codesOf = parts.stream().map(part -> part.distinct.stream().mapToInt(codes::of).toArray()).toList();
        int[] start = new int[codes.distinct().size() + 1];
        for (int p = 0; p < parts.size(); p++) {
            for (int c = 0; c < codesOf.get(p).length; c++) {
                start[codesOf.get(p)[c] + 1] += parts.get(p).start[c + 1] - parts.get(p).start[c];
            }
        }
        for (int c = 0; c + 1 < start.length; c++) {
            start[c + 1] += start[c];
        }
        int[] next = start.clone();
        int[] members = new int[start[start.length - 1]];
        for (int p = 0; p < parts.size(); p++) {
            Postings<T> part = parts.get(p);
            for (int c = 0; c < codesOf.get(p).length; c++) {
                int n = part.start[c + 1] - part.start[c];
                System.arraycopy(part.members, part.start[c], members, next[codesOf.get(p)[c]], n);
                next[codesOf.get(p)[c]] += n;
            }
        }
        return new Postings<>(codes.distinct(), start, members, size,
                members.length == size && parts.stream().allMatch(part -> part.exactlyOne));
    }

    private Postings(Postings<T> all, int size) {
        this(all.distinct, all.start, all.members, size, all.exactlyOne && all.members.length == size);
    }

    /** Takes the values of a run of positions, position by position, in ascending order. Of one thread. */
    static final class Builder<T> {

        private final int from;
        private final int to;
        private final Codes<T> codes = new Codes<>();
        /** Null as long as every position so far has had exactly one value. */
        private int @Nullable [] at;
        private int[] code;
        private int n;

        Builder(int from, int to) {
            this.from = from;
            this.to = to;
            this.code = new int[Math.max(16, to - from)];
        }

        void add(int position, T value) {
            if (n == code.length) {
                code = Arrays.copyOf(code, n * 2);
                at = at == null ? null : Arrays.copyOf(at, n * 2);
            }
            if (at == null && position != from + n) {
                at = new int[code.length];
                Arrays.setAll(at, i -> from + i);
            }
            if (at != null) {
                at[n] = position;
            }
            code[n++] = codes.of(value);
        }

        Postings<T> build() {
            int[] start = new int[codes.distinct().size() + 1];
            for (int i = 0; i < n; i++) {
                start[code[i] + 1]++;
            }
            for (int c = 0; c + 1 < start.length; c++) {
                start[c + 1] += start[c];
            }
            int[] next = start.clone();
            int[] members = new int[n];
            for (int i = 0; i < n; i++) {
                members[next[code[i]]++] = at == null ? from + i : at[i];
            }
            return new Postings<>(codes.distinct(), start, members, to - from, at == null && n == to - from);
        }
    }

    /** The same positions under values made of these. */
    <R> Postings<R> map(Function<T, R> change) {
        return new Postings<>(distinct.stream().map(change).toList(), start, members, size, exactlyOne);
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
        Words words = new Words(0, size);
        long[] raw = words.raw();
        for (int c = codes.nextSetBit(0); c >= 0; c = codes.nextSetBit(c + 1)) {
            for (int i = start[c]; i < start[c + 1]; i++) {
                raw[members[i] >> 6] |= 1L << members[i];
            }
        }
        return words.toPositions();
    }
}
