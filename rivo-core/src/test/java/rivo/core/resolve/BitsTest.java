package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.function.Consumer;
import java.util.function.LongBinaryOperator;
import org.junit.jupiter.api.Test;

/** Each loop does word by word what its name says, from one word to another, and leaves all other words as they are. */
class BitsTest {

    private static final int WORDS = 19;

    private final Random random = new Random(5);

    @Test
    void changesTheWordsThatAreNamedAndNoOthers() {
        for (int from = 0; from <= WORDS; from++) {
            for (int to = from; to <= WORDS; to++) {
                int first = from;
                int end = to;
                long[] more = words();
                long[] other = words();
                changes(set -> Bits.add(set, more, first, end), first, end, more, (was, m) -> was | m);
                changes(set -> Bits.remove(set, more, first, end), first, end, more, (was, m) -> was & ~m);
                changes(set -> Bits.keep(set, more, first, end), first, end, more, (was, m) -> was & m);
                changes(set -> Bits.both(more, other, set, first, end), first, end, combined(more, other, (m, o) -> m & o), (was, both) -> both);
                changes(set -> Bits.without(more, other, set, first, end), first, end, combined(more, other, (m, o) -> m & ~o), (was, rest) -> rest);
                changes(set -> Bits.addBoth(set, more, other, first, end), first, end, combined(more, other, (m, o) -> m & o), (was, both) -> was | both);
                changes(set -> Bits.keepEither(set, more, other, first, end), first, end, combined(more, other, (m, o) -> m | o), (was, either) -> was & either);
            }
        }
    }

    @Test
    void findsTheOnlyWordThatTellsWhereverItIs() {
        for (int from = 0; from <= WORDS; from++) {
            for (int to = from; to <= WORDS; to++) {
                for (int w = 0; w < WORDS; w++) {
                    long[] one = new long[WORDS];
                    long[] other = words();
                    one[w] = 1L << random.nextInt(Long.SIZE);
                    other[w] = one[w];
                    assertThat(Bits.any(one, from, to)).as("word %d from %d to %d", w, from, to).isEqualTo(w >= from && w < to);
                    assertThat(Bits.meet(one, other, from, to)).as("word %d from %d to %d", w, from, to).isEqualTo(w >= from && w < to);
                    other[w] = ~one[w];
                    assertThat(Bits.meet(one, other, from, to)).isFalse();
                }
            }
        }
    }

    private void changes(Consumer<long[]> change, int from, int to, long[] by, LongBinaryOperator what) {
        long[] before = words();
        long[] set = before.clone();
        change.accept(set);
        for (int w = 0; w < WORDS; w++) {
            assertThat(set[w]).as("word %d from %d to %d", w, from, to).isEqualTo(w >= from && w < to ? what.applyAsLong(before[w], by[w]) : before[w]);
        }
    }

    private static long[] combined(long[] one, long[] other, LongBinaryOperator how) {
        long[] all = new long[WORDS];
        for (int w = 0; w < WORDS; w++) {
            all[w] = how.applyAsLong(one[w], other[w]);
        }
        return all;
    }

    private long[] words() {
        return random.longs(WORDS).toArray();
    }
}
