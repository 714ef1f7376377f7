package rivo.core.audience;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/**
 * The values at the positions of a run, each as a code: what {@link Postings} are made of. They are taken position by
 * position, in ascending order, and coded a block at a time. Of one thread.
 *
 * @param <T> a value, compared by {@code equals}
 */
final class CodedRun<T> {

    private static final int BLOCK = 512;

    /**
     * Some values that came one after the other.
     *
     * @param at their positions; null when they are at {@code first} and those after it, one each
     */
    private record Block(int first, int @Nullable [] at, int[] codes) {
    }

    private final int to;
    private final Codes<T> codes = new Codes<>();
    private final List<Block> blocks = new ArrayList<>();
    private final T[] waiting = waiting();
    private final int[] at = new int[BLOCK];
    private int n;
    /** Whether every position so far has had exactly one value. */
    private boolean oneEach = true;
    private int next;

    CodedRun(int from, int to) {
        this.to = to;
        this.next = from;
    }

    /** The values of a whole run. */
    static <T> CodedRun<T> of(int from, int to, IntFunction<List<T>> values) {
        CodedRun<T> run = new CodedRun<>(from, to);
        Blocks.forEach(from, to, values, List::isEmpty, (position, list) -> {
            for (int i = 0; i < list.size(); i++) {
                run.add(position, list.get(i));
            }
        });
        return run.done();
    }

    void add(int position, T value) {
        waiting[n] = value;
        at[n++] = position;
        if (n == BLOCK) {
            done();
        }
    }

    /** Codes what still waits; to be called after the last value. */
    CodedRun<T> done() {
        if (n > 0) {
            boolean isRun = isRun();
            blocks.add(new Block(at[0], isRun ? null : Arrays.copyOf(at, n), codes.of(waiting, n)));
            oneEach &= isRun && at[0] == next;
            next = at[n - 1] + 1;
            n = 0;
        }
        return this;
    }

    private boolean isRun() {
        for (int i = 1; i < n; i++) {
            if (at[i] != at[0] + i) {
                return false;
            }
        }
        return true;
    }

    List<T> distinct() {
        return codes.distinct();
    }

    boolean hasExactlyOneEach() {
        return oneEach && next == to;
    }

    /** How often each code comes. */
    int[] counts() {
        int[] counts = new int[distinct().size()];
        for (Block block : blocks) {
            for (int code : block.codes) {
                counts[code]++;
            }
        }
        return counts;
    }

    /**
     * Writes the positions of each code side by side, in ascending order.
     *
     * @param begins where the positions of each code are to begin; it is moved along
     */
    void layOut(int[] begins, int[] members) {
        for (Block block : blocks) {
            int[] codes = block.codes;
            int[] at = block.at;
            for (int i = 0; i < codes.length; i++) {
                members[begins[codes[i]]++] = at == null ? block.first + i : at[i];
            }
        }
    }

    @SuppressWarnings("unchecked")
    private static <T> T[] waiting() {
        return (T[]) new Object[BLOCK];
    }
}
