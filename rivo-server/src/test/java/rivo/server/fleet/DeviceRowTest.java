package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;

/** What is said of a device in one word. */
class DeviceRowTest {

    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");

    private static DeviceActivity doing(@Nullable Instant seen, @Nullable Instant due, JobState... jobs) {
        return new DeviceActivity(seen, due, Arrays.stream(jobs).distinct().map(state -> new Progress(state.name(), null, JobAction.INSTALL, "1", state, 1, 1, 0,
                "", null, NOW)).collect(Collectors.toMap(JobKey::of, Function.identity())));
    }

    private static String state(Duration overdue, JobState... jobs) {
        return DeviceRow.state(doing(NOW.minus(Duration.ofDays(9)), NOW.minus(overdue), jobs), NOW).word();
    }

    @Test
    void isNotSeenLatelyMoreThanADayAfterItMeantToCallIn() {
        assertThat(state(Duration.ofHours(-1))).isEqualTo("idle");
        assertThat(state(Duration.ofDays(1))).as("to the second").isEqualTo("idle");
        assertThat(state(Duration.ofDays(1).plusMillis(1))).isEqualTo("not-seen-lately");
        assertThat(DeviceRow.state(doing(null, null), NOW)).isEqualTo(DeviceRow.State.NEVER);
    }

    @ParameterizedTest
    @CsvSource({"RUNNING, under-way", "FAILED, failed", "WAITING, waiting", "DONE, not-seen-lately"})
    void whatItsJobsSayGoesFirst(JobState job, String state) {
        assertThat(state(Duration.ofDays(30), job)).isEqualTo(state);
        assertThat(state(Duration.ofDays(30), job, JobState.RUNNING)).isEqualTo("under-way");
    }

    @Test
    void aFailureGoesBeforeWaiting() {
        assertThat(state(Duration.ZERO, JobState.WAITING, JobState.FAILED)).isEqualTo("failed");
    }
}
