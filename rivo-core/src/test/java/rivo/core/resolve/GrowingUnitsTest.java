package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import rivo.core.audience.Positions;

/** Whatever is added, in ascending order or not, few or many, is what comes out, each place once. */
class GrowingUnitsTest {

    private static final int WORDS = 40;

    private final Random random = new Random(7);

    @Test
    void wordsInAnyOrder() {
        for (int i = 0; i < 3000; i++) {
            int first = Long.SIZE * random.nextInt(30);
            GrowingUnits units = new GrowingUnits(new Lanes(first, first + WORDS * Long.SIZE));
            TreeSet<Integer> added = new TreeSet<>();
            boolean ascending = random.nextBoolean();
            int word = 0;
            for (int n = random.nextInt(12); n > 0 && word < WORDS; n--) {
                int at = ascending ? word : random.nextInt(WORDS);
                long bits = some();
                units.expect(Long.bitCount(bits));
                units.add(first + at * Long.SIZE, bits);
                note(bits, first + at * Long.SIZE, added);
                word += 1 + random.nextInt(4);
            }
            assertSame(units, added);
        }
    }

    @Test
    void blockByBlock() {
        for (int i = 0; i < 500; i++) {
            GrowingUnits units = new GrowingUnits(new Lanes(0, WORDS * Long.SIZE));
            TreeSet<Integer> added = new TreeSet<>();
            for (int from = 0; from < WORDS; from += 8) {
                long[] block = new long[8];
                for (int n = random.nextInt(3); n > 0; n--) {
                    block[random.nextInt(block.length)] |= some();
                }
                units.add(new Lanes(from * Long.SIZE, (from + 8) * Long.SIZE), block);
                for (int w = 0; w < block.length; w++) {
                    note(block[w], (from + w) * Long.SIZE, added);
                }
            }
            assertSame(units, added);
        }
    }

    /** Few bits mostly, so that both shapes come up, and lower ones after higher ones of the same word. */
    private long some() {
        return random.nextInt(8) == 0 ? random.nextLong() | 1 : 1L << random.nextInt(Long.SIZE);
    }

    private static void note(long bits, int first, TreeSet<Integer> added) {
        for (int bit = 0; bit < Long.SIZE; bit++) {
            if ((bits >>> bit & 1) != 0) {
                added.add(first + bit);
            }
        }
    }

    private static void assertSame(GrowingUnits units, TreeSet<Integer> added) {
        Positions built = units.build();
        assertThat(Arrays.stream(built.toArray()).boxed()).containsExactlyElementsOf(added);
        assertThat(built).isEqualTo(Positions.of(added.stream().mapToInt(p -> p).toArray()));
    }
}
