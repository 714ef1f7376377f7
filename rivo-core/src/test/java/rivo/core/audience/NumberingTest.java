package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Units that lie apart have numbers in their order, and every set of units has the numbers of those of its members. */
public class NumberingTest {

    private final Random random = new Random(12);

    /** Sets of every shape: runs, few that lie far apart, and many. */
    public static Positions set(Random random, int end) {
        return switch (random.nextInt(4)) {
            case 0 -> Positions.range(random.nextInt(end), random.nextInt(end));
            case 1 -> Positions.of(random.ints(random.nextInt(4), 0, end).toArray());
            case 2 -> Positions.of(random.ints(random.nextInt(30), 0, end).toArray());
            default -> Positions.of(random.ints(random.nextInt(end), 0, end).toArray());
        };
    }

    @Test
    void everyUnitHasTheNumberOfThoseBeforeIt() {
        for (int i = 0; i < 4000; i++) {
            int end = 1 + random.nextInt(random.nextInt(4) == 0 ? 60_000 : 3000);
            int[] units = random.ints(1 + random.nextInt(200), 0, end).distinct().sorted().toArray();
            Numbering numbering = new Numbering(Positions.of(units));
            assertThat(numbering.size()).isEqualTo(units.length);
            for (int again = 0; again < 3; again++) {
                Positions set = set(random, end);
                int[] numbers = IntStream.range(0, units.length).filter(n -> set.contains(units[n])).toArray();
                assertThat(numbering.numbers(set)).as("%s among %s", set, Positions.of(units)).isEqualTo(Positions.of(numbers));
                assertThat(numbering.positions(Positions.of(numbers))).isEqualTo(set.and(Positions.of(units)));
            }
        }
    }
}
