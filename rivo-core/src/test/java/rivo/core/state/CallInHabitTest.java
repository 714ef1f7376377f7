package rivo.core.state;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Random;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;

/** When devices may be expected to call in, by what they did before. */
class CallInHabitTest {

    /** A Monday. */
    private static final Instant NOW = Instant.parse("2026-11-30T00:00:00Z");

    /** One that called in at each full hour of the last 14 days for which this holds. */
    private static CallInHabit habit(Predicate<LocalDateTime> calls) {
        CallInHabit habit = CallInHabit.NONE;
        for (int hour = 14 * 24; hour > 0; hour--) {
            Instant at = NOW.minus(Duration.ofHours(hour));
            if (calls.test(LocalDateTime.ofInstant(at, ZoneOffset.UTC))) {
                habit = habit.with(at);
            }
        }
        return habit;
    }

    private static String by(CallInHabit habit, double likelihood, String now) {
        return String.valueOf(habit.callsInBy(likelihood, Instant.parse(now)));
    }

    @Test
    void whoeverCallsEachHourDoesSoWithinTheHour() {
        CallInHabit habit = habit(at -> true);
        assertThat(by(habit, 0.5, "2026-11-30T00:00:00Z")).isEqualTo("2026-11-30T00:30:00Z");
        assertThat(by(habit, 0.9, "2026-11-30T00:00:00Z")).isEqualTo("2026-11-30T00:54:00Z");
        assertThat(by(habit, 0.5, "2026-11-30T00:45:00Z")).as("not before now").isEqualTo("2026-11-30T00:45:00Z");
    }

    @Test
    void whoeverIsOnAtWorkOnlyIsExpectedThen() {
        CallInHabit habit = habit(at -> at.getHour() == 9 && at.getDayOfWeek().compareTo(DayOfWeek.FRIDAY) <= 0);
        // Ten of the fourteen days, both Mondays among them: (8 + 8) of (8 + 12).
        assertThat(by(habit, 0.5, "2026-11-30T06:00:00Z")).isEqualTo("2026-11-30T09:37:30Z");
        assertThat(by(habit, 0.9, "2026-11-30T06:00:00Z")).isEqualTo("2026-12-01T09:37:30Z");
    }

    @Test
    void oneThatIsNewIsKnownByWhatIsKnownOfIt() {
        CallInHabit habit = CallInHabit.NONE.with(NOW.minus(Duration.ofHours(14)));
        assertThat(by(habit, 0.5, "2026-11-30T00:00:00Z")).startsWith("2026-11-30T10:");
    }

    @Test
    void aDayOfTheWeekCountsMoreThanAnyDay() {
        CallInHabit habit = habit(at -> at.getHour() == 9 && at.getDayOfWeek() == DayOfWeek.WEDNESDAY);
        assertThat(by(habit, 0.4, "2026-11-30T00:00:00Z")).startsWith("2026-12-02T09:");
    }

    @Test
    void whoeverWasAwayForTwoWeeksIsNotExpected() {
        assertThat(CallInHabit.NONE.isAway(NOW)).isTrue();
        assertThat(CallInHabit.NONE.callsInBy(0.1, NOW)).isNull();
        CallInHabit habit = CallInHabit.NONE.with(NOW.minus(Duration.ofHours(14 * 24 - 1)));
        assertThat(habit.isAway(NOW)).isFalse();
        assertThat(habit.isAway(NOW.plus(Duration.ofHours(1)))).isTrue();
        assertThat(habit.callsInBy(0.1, NOW.plus(Duration.ofHours(1)))).isNull();
    }

    @Test
    void itRemembersFourteenDaysHoweverItIsTold() {
        Random random = new Random(7);
        for (int round = 0; round < 50; round++) {
            TreeSet<Long> told = new TreeSet<>();
            CallInHabit habit = CallInHabit.NONE;
            Instant at = NOW;
            for (int i = 0; i < 200; i++) {
                at = at.plus(Duration.ofMinutes(random.nextInt(random.nextInt(20) == 0 ? 30_000 : 200)));
                told.add(at.getEpochSecond() / 3600);
                habit = habit.with(at).with(at.minusSeconds(random.nextInt(100_000)));
            }
            CallInHabit anew = CallInHabit.NONE;
            for (long hour : told.tailSet(told.last() - 14 * 24 + 1)) {
                anew = anew.with(Instant.ofEpochSecond(hour * 3600));
            }
            assertThat(habit).isEqualTo(anew).isEqualTo(CallInHabit.of(habit.bytes()));
            assertThat(habit.hashCode()).isEqualTo(anew.hashCode());
            Instant half = habit.callsInBy(0.5, at);
            Instant nine = habit.callsInBy(0.9, at);
            assertThat(half == null ? nine : half).isNotEqualTo(half == null ? Instant.EPOCH : null);
            assertThat(half == null || !half.isBefore(at) && (nine == null || !nine.isBefore(half))).isTrue();
        }
        assertThat(CallInHabit.of(null)).isEqualTo(CallInHabit.NONE);
        assertThat(CallInHabit.of(new byte[3])).isEqualTo(CallInHabit.NONE);
    }
}
