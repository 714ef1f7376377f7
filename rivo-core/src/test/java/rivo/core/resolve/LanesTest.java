package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.RandomPositions;
import rivo.core.audience.Positions;

/** Each place has a lane, and every set of places has the bits of those of its members. */
class LanesTest {

    private final Random random = new Random(11);

    @Test
    void everyPlaceHasALane() {
        for (int i = 0; i < 2000; i++) {
            int first = 64 * random.nextInt(40);
            Lanes lanes = new Lanes(first, first + 1 + random.nextInt(400));
            assertThat(lanes.words()).isEqualTo((lanes.end() - first + 63) / 64);
            Positions set = RandomPositions.below(3000, random);
            long[] into = new long[lanes.words()];
            long before = random.nextLong();
            into[0] = before;
            lanes.mark(set, into);
            for (int lane = 0; lane < lanes.end() - first; lane++) {
                boolean was = lane < 64 && (before >>> lane & 1) != 0;
                assertThat((into[lane >> 6] >>> lane & 1) != 0).as("lane %d of %s in %s", lane, lanes, set).isEqualTo(was || set.contains(first + lane));
            }
        }
    }

    @Test
    void allAreInASetThatHoldsEveryLane() {
        for (int count = 1; count <= 200; count++) {
            int first = 64 * random.nextInt(3);
            Lanes lanes = new Lanes(first, first + count);
            long[] set = new long[lanes.words()];
            IntStream.range(0, count).forEach(lane -> set[lane >> 6] |= 1L << lane);
            assertThat(lanes.areIn(set)).isTrue();
            int missing = random.nextInt(count);
            set[missing >> 6] &= ~(1L << missing);
            assertThat(lanes.areIn(set)).as("without lane %d of %d", missing, count).isFalse();
        }
    }
}
