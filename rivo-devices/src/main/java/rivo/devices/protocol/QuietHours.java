package rivo.devices.protocol;

import java.time.LocalTime;

/**
 * When nobody is told anything that does not count down, each day by the device's own clock.
 *
 * @param from the first moment
 * @param to the first moment after them; before {@code from} for one of the next day
 */
public record QuietHours(LocalTime from, LocalTime to) {

    public boolean include(LocalTime time) {
        boolean since = !time.isBefore(from);
        boolean until = time.isBefore(to);
        return from.isAfter(to) ? since || until : since && until;
    }
}
