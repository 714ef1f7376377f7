package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class TriesTest {

    private static final Instant NOW = Instant.parse("2026-11-28T09:00:00Z");
    private final Tries tries = new Tries(Duration.ofMinutes(15));

    @Test
    void afterFailuresItWaitsAQuarterOfAnHourAnHourFourHoursAndThenADay() {
        assertThat(tries.afterFailure("job", 1, NOW)).isEqualTo("2026-11-28T09:15:00Z");
        assertThat(tries.afterFailure("job", 2, NOW)).isEqualTo("2026-11-28T10:00:00Z");
        assertThat(tries.afterFailure("job", 3, NOW)).isEqualTo("2026-11-28T13:00:00Z");
        assertThat(tries.afterFailure("job", 4, NOW)).isEqualTo("2026-11-29T09:00:00Z");
        assertThat(tries.afterFailure("job", 40, NOW)).isEqualTo("2026-11-29T09:00:00Z");
    }

    @Test
    void aBusyInstallerIsRunAgainAfterTheMinutesThatItAsksFor() {
        assertThat(tries.afterMinutes("job", 5, NOW)).isEqualTo("2026-11-28T09:05:00Z");
        assertThat(tries.afterMinutes("job", 0, NOW)).as("never at once").isEqualTo("2026-11-28T09:01:00Z");
        assertThat(new Tries(Duration.ofSeconds(30)).afterMinutes("job", 15, NOW)).as("in a time of its own").isEqualTo("2026-11-28T09:00:30Z");
    }

    @Test
    void itIsDueWhenItsTimeHasComeAndNotBefore() {
        assertThat(tries.isDue("job", NOW)).isTrue();
        tries.afterALook("job", NOW);
        assertThat(tries.isDue("job", NOW.plusSeconds(899))).isFalse();
        assertThat(tries.left("job", NOW.plusSeconds(600))).isEqualTo(Duration.ofMinutes(5));
        assertThat(tries.isDue("job", NOW.plusSeconds(900))).isTrue();
        assertThat(tries.left("job", NOW.plusSeconds(900))).isZero();
        assertThat(tries.isDue("another", NOW)).isTrue();
        tries.forget("job");
        assertThat(tries.isDue("job", NOW)).isTrue();
    }
}
