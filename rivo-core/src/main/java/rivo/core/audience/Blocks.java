package rivo.core.audience;

import java.util.Collection;
import java.util.List;
import java.util.function.IntFunction;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Walks through what stands at the positions of a list. What a million devices say lies all over the memory: so long
 * lists are walked in parts, on several threads, and each a block at a time, whose things are fetched side by side first,
 * so that nobody has to wait for each of them in turn.
 */
final class Blocks {

    private static final int BLOCK = 256;
    /** A part is not worth a thread below so many. */
    private static final int LEAST_PART = 50_000;

    private Blocks() {
    }

    /** Takes one thing with its position. */
    interface Visitor<T> {
        void visit(int position, T thing);
    }

    /** Works one part out: the positions from {@code from}, included, to {@code to}, excluded. */
    interface Part<R> {
        R of(int from, int to);
    }

    /** A stream of the things; of several threads where what they are made of is as long as {@code size}, and that is long. */
    static <T> Stream<T> sideBySide(int size, Collection<T> things) {
        return size < 2 * LEAST_PART ? things.stream() : things.parallelStream();
    }

    /** What each part of the positions comes to, in ascending order; worked out side by side. */
    static <R> List<R> inParts(int size, Part<R> part) {
        int parts = Math.max(1, Math.min(Runtime.getRuntime().availableProcessors(), size / LEAST_PART));
        return IntStream.range(0, parts).parallel().mapToObj(i -> part.of((int) ((long) size * i / parts),
                (int) ((long) size * (i + 1) / parts))).toList();
    }

    /**
     * Visits what stands at each position from {@code from}, included, to {@code to}, excluded, in ascending order.
     *
     * @param isEmpty whether there is nothing to be seen in it, so that it is left out
     */
    static <T> void forEach(int from, int to, IntFunction<T> at, Predicate<T> isEmpty, Visitor<T> visitor) {
        Object[] block = new Object[Math.min(BLOCK, to - from)];
        boolean[] empty = new boolean[block.length];
        for (int start = from; start < to; start += BLOCK) {
            int n = Math.min(BLOCK, to - start);
            for (int i = 0; i < n; i++) {
                block[i] = at.apply(start + i);
            }
            for (int i = 0; i < n; i++) {
                empty[i] = isEmpty.test(thing(block[i]));
            }
            for (int i = 0; i < n; i++) {
                if (!empty[i]) {
                    visitor.visit(start + i, thing(block[i]));
                }
            }
        }
    }

    @SuppressWarnings("unchecked")
    private static <T> T thing(Object object) {
        return (T) object;
    }
}
