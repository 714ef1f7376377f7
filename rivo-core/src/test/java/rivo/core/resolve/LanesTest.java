package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.audience.Positions;

/** Each unit has a lane, and every set of units has the bits of those of its members. */
class LanesTest {

    private final Random random = new Random(11);

    @Test
    void everyPositionOfASpanHasALane() {
        for (int i = 0; i < 2000; i++) {
            int first = 64 * random.nextInt(40);
            int words = 1 + random.nextInt(6);
            Lanes lanes = Lanes.span(first, words);
            assertThat(lanes.end()).isEqualTo(first + 64 * words);
            marksAsItShould(lanes, IntStream.range(first, first + 64 * words).toArray());
        }
    }

    @Test
    void unitsThatLieApartHaveLanesOneAfterTheOther() {
        for (int i = 0; i < 2000; i++) {
            int span = 1 + random.nextInt(3000);
            int[] units = random.ints(1 + random.nextInt(200), 0, span).distinct().sorted().toArray();
            Lanes lanes = Lanes.of(units.clone());
            assertThat(lanes.words()).isEqualTo((units.length + 63) / 64);
            assertThat(lanes.first()).isLessThanOrEqualTo(units[0]);
            assertThat(lanes.end()).isEqualTo(units[units.length - 1] + 1);
            marksAsItShould(lanes, units);
            // Nothing is left of one set when the next is marked.
            marksAsItShould(lanes, units);
        }
    }

    @Test
    void allAreInASetThatHoldsEveryLane() {
        for (int count = 1; count <= 200; count++) {
            Lanes apart = Lanes.of(IntStream.range(0, count).map(i -> 3 * i).toArray());
            areInWhatHolds(apart, count);
            Lanes span = Lanes.span(64 * count, (count + 63) / 64);
            areInWhatHolds(span, 64 * span.words());
        }
    }

    private void areInWhatHolds(Lanes lanes, int count) {
        long[] set = new long[lanes.words()];
        IntStream.range(0, count).forEach(lane -> set[lane >> 6] |= 1L << lane);
        assertThat(lanes.areIn(set)).isTrue();
        int missing = random.nextInt(count);
        set[missing >> 6] &= ~(1L << missing);
        assertThat(lanes.areIn(set)).as("without lane %d of %d", missing, count).isFalse();
    }

    /** Sets of every shape: runs, few that lie far apart, and many. */
    private void marksAsItShould(Lanes lanes, int[] units) {
        Positions set = switch (random.nextInt(4)) {
            case 0 -> Positions.range(random.nextInt(3000), random.nextInt(3000));
            case 1 -> Positions.of(random.ints(random.nextInt(4), 0, 3000).toArray());
            case 2 -> Positions.of(random.ints(random.nextInt(30), 0, 3000).toArray());
            default -> Positions.of(random.ints(random.nextInt(4000), 0, 3000).toArray());
        };
        long before = random.nextLong();
        long[] into = new long[lanes.words()];
        into[0] = before;
        lanes.mark(set, into);
        for (int lane = 0; lane < 64 * lanes.words(); lane++) {
            boolean was = lane < 64 && (before >>> lane & 1) != 0;
            boolean is = lane < units.length && set.contains(units[lane]);
            assertThat((into[lane >> 6] >>> lane & 1) != 0).as("lane %d of %s in %s", lane, lanes.words(), set).isEqualTo(was || is);
            if (lane < units.length) {
                assertThat(lanes.unit(lane)).isEqualTo(units[lane]);
            }
        }
    }
}
