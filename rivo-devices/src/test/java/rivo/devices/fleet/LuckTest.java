package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumMap;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class LuckTest {

    @Test
    void theSameSeedMeetsTheSameLuck() {
        assertThat(new Luck(7, "QB-LAB-014").perMille("x")).isEqualTo(new Luck(7, "QB-LAB-014").perMille("x"));
        assertThat(IntStream.range(0, 50).filter(i -> new Luck(7, "d" + i).perMille("x") == new Luck(8, "d" + i)
                .perMille("x")).count()).isLessThan(5);
    }

    @Test
    void mostThingsGoWellAndEverythingGoesWrongSometimes() {
        Map<Luck.Mishap, Integer> seen = new EnumMap<>(Luck.Mishap.class);
        IntStream.range(0, 4000).forEach(i -> seen.merge(new Luck(1, "d" + i).mishap("job", 1), 1, Integer::sum));
        assertThat(seen.keySet()).containsExactlyInAnyOrder(Luck.Mishap.values());
        assertThat(seen.get(Luck.Mishap.NONE)).isGreaterThan(3400);
    }

    @Test
    void nothingGoesWrongWhereItIsSpared() {
        assertThat(IntStream.range(0, 4000).mapToObj(i -> new Luck(1, "d" + i, true).mishap("job", 1 + i % 3))).containsOnly(Luck.Mishap.NONE);
    }

    @Test
    void someKeepFailing() {
        assertThat(IntStream.range(0, 4000).filter(i -> new Luck(1, "d" + i).mishap("job", 4)
                == Luck.Mishap.INSTALLER_FAILS).count()).isBetween(8L, 80L);
    }
}
