package rivo.devices.protocol;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Set;
import java.util.TreeSet;

/**
 * When a device may carry jobs out, by its own clock.
 *
 * @param days on which it opens
 * @param opens the time of day
 * @param minutes how long it stays open, 1 to 1,440; past midnight too
 */
public record Window(Set<DayOfWeek> days, LocalTime opens, int minutes) {

    private static final int WEEK = 7;

    public Window {
        days = java.util.Collections.unmodifiableSet(new TreeSet<>(days));
    }

    /** How long it is still open at this time; nothing while it is closed. */
    public Duration left(LocalDateTime at) {
        // One that opened yesterday may still be open.
        for (LocalDate day : new LocalDate[] {at.toLocalDate(), at.toLocalDate().minusDays(1)}) {
            LocalDateTime open = day.atTime(opens);
            LocalDateTime shut = open.plusMinutes(minutes);
            if (days.contains(day.getDayOfWeek()) && !at.isBefore(open) && at.isBefore(shut)) {
                return Duration.between(at, shut);
            }
        }
        return Duration.ZERO;
    }

    /** When it opens next, after this time; this time itself for one that opens on no day. */
    public LocalDateTime next(LocalDateTime after) {
        for (int i = 0; i <= WEEK; i++) {
            LocalDateTime open = after.toLocalDate().plusDays(i).atTime(opens);
            if (days.contains(open.getDayOfWeek()) && open.isAfter(after)) {
                return open;
            }
        }
        return after;
    }
}
