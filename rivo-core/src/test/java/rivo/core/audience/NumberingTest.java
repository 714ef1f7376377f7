package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.RandomPositions;

/** Units that lie apart have numbers in their order, and every set of units has the numbers of those of its members. */
class NumberingTest {

    private final Random random = new Random(12);

    @Test
    void everyUnitHasTheNumberOfThoseBeforeIt() {
        for (int i = 0; i < 4000; i++) {
            int end = 1 + random.nextInt(random.nextInt(4) == 0 ? 60_000 : 3000);
            int[] units = random.ints(1 + random.nextInt(200), 0, end).distinct().sorted().toArray();
            Numbering numbering = new Numbering(Positions.of(units));
            assertThat(numbering.size()).isEqualTo(units.length);
            for (int again = 0; again < 3; again++) {
                Positions set = RandomPositions.below(end, random);
                int[] numbers = IntStream.range(0, units.length).filter(n -> set.contains(units[n])).toArray();
                assertThat(numbering.numbers(set)).as("%s among %s", set, Positions.of(units)).isEqualTo(Positions.of(numbers));
                assertThat(numbering.positions(Positions.of(numbers))).isEqualTo(set.and(Positions.of(units)));
            }
        }
    }
}
