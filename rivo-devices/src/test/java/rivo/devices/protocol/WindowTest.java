package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** When a window is open, and when it opens next. 24 November 2026 is a Tuesday. */
class WindowTest {

    private static final Window NIGHT = new Window(Set.of(DayOfWeek.TUESDAY, DayOfWeek.FRIDAY), LocalTime.of(22, 30), 180);

    private static LocalDateTime at(String time) {
        return LocalDateTime.parse("2026-11-" + time);
    }

    @Test
    void itIsOpenFromItsTimeOnForItsMinutes() {
        assertThat(NIGHT.left(at("24T22:29:59"))).isZero();
        assertThat(NIGHT.left(at("24T22:30"))).isEqualTo(Duration.ofMinutes(180));
        assertThat(NIGHT.left(at("24T23:30"))).isEqualTo(Duration.ofMinutes(120));
    }

    @Test
    void itStaysOpenPastMidnight() {
        assertThat(NIGHT.left(at("25T01:29"))).isEqualTo(Duration.ofMinutes(1));
        assertThat(NIGHT.left(at("25T01:30"))).isZero();
        assertThat(NIGHT.left(at("25T22:40"))).as("not on a Wednesday").isZero();
        assertThat(NIGHT.left(at("24T00:30"))).as("Monday was no day of its own").isZero();
    }

    @Test
    void itSaysWhenItOpensNext() {
        assertThat(NIGHT.next(at("24T10:00"))).isEqualTo(at("24T22:30"));
        assertThat(NIGHT.next(at("24T22:30"))).as("after, not at").isEqualTo(at("27T22:30"));
        assertThat(NIGHT.next(at("28T10:00"))).isEqualTo(LocalDateTime.parse("2026-12-01T22:30"));
        Window weekly = new Window(Set.of(DayOfWeek.TUESDAY), LocalTime.of(22, 30), 60);
        assertThat(weekly.next(at("24T23:00"))).isEqualTo(LocalDateTime.parse("2026-12-01T22:30"));
    }

    @Test
    void oneThatOpensOnNoDayNeverOpens() {
        Window never = new Window(Set.of(), LocalTime.NOON, 60);
        assertThat(never.left(at("24T12:10"))).isZero();
        assertThat(never.next(at("24T12:10"))).isEqualTo(at("24T12:10"));
    }

    @Test
    void aWholeDayIsOpenToItsEnd() {
        Window day = new Window(Set.of(DayOfWeek.TUESDAY), LocalTime.MIDNIGHT, 1440);
        assertThat(day.left(at("24T23:59"))).isEqualTo(Duration.ofMinutes(1));
        assertThat(day.left(at("25T00:00"))).isZero();
    }
}
