package rivo.core.audience;

import java.util.Arrays;
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

    private Postings(List<T> distinct, int[] start, int[] members, int size) {
        this.distinct = distinct;
        this.start = start;
        this.members = members;
        this.size = size;
    }

    /** @param values the values at each position; none for a position without one */
    static <T> Postings<T> of(int size, IntFunction<? extends Iterable<T>> values) {
        Builder<T> builder = new Builder<>(size);
        for (int p = 0; p < size; p++) {
            for (T value : values.apply(p)) {
                builder.add(p, value);
            }
        }
        return builder.build();
    }

    /** Takes values position by position, in ascending order. Of one thread. */
    static final class Builder<T> {

        private final int size;
        private final Codes<T> codes = new Codes<>();
        private int[] at;
        private int[] code;
        private int n;

        Builder(int size) {
            this.size = size;
            this.at = new int[Math.max(16, size)];
            this.code = new int[at.length];
        }

        void add(int position, T value) {
            if (n == at.length) {
                at = Arrays.copyOf(at, n * 2);
                code = Arrays.copyOf(code, n * 2);
            }
            at[n] = position;
            code[n++] = codes.of(value);
        }

        Postings<T> build() {
            return sorted(codes.distinct(), at, code, n, size);
        }
    }

    private static <T> Postings<T> sorted(List<T> distinct, int[] at, int[] code, int n, int size) {
        int[] start = new int[distinct.size() + 1];
        for (int i = 0; i < n; i++) {
            start[code[i] + 1]++;
        }
        for (int c = 0; c < distinct.size(); c++) {
            start[c + 1] += start[c];
        }
        int[] next = start.clone();
        int[] members = new int[n];
        for (int i = 0; i < n; i++) {
            members[next[code[i]]++] = at[i];
        }
        return new Postings<>(distinct, start, members, size);
    }

    /** The same positions under values made of these. */
    <R> Postings<R> map(Function<T, R> change) {
        return new Postings<>(distinct.stream().map(change).toList(), start, members, size);
    }

    /** The positions that have a value which satisfies the test. */
    Positions where(Predicate<T> test) {
        Words words = new Words(0, size);
        for (int c = 0; c < distinct.size(); c++) {
            if (test.test(distinct.get(c))) {
                for (int i = start[c]; i < start[c + 1]; i++) {
                    words.add(members[i]);
                }
            }
        }
        return words.toPositions();
    }
}
