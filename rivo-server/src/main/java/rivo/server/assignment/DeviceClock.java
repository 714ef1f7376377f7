package rivo.server.assignment;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;

/**
 * The clock on a device's wall: its own time zone, as it reports it (fact {@code x.timezone}, an IANA name), else the server's. (Section 2 of
 * the delivery rules.) Pure functions.
 */
public final class DeviceClock {

    private static final String FACT = "x.timezone";

    private DeviceClock() {
    }

    public static ZoneId zone(Device device) {
        String named = device.facts().get(FACT);
        if (named != null) {
            try {
                return ZoneId.of(named);
            } catch (DateTimeException e) {
                // What is no zone counts as not reported.
                return ZoneId.systemDefault();
            }
        }
        return ZoneId.systemDefault();
    }

    /**
     * The instant of a deadline on a device; null without one. A local time that a clock change leaves out is the first instant after it; one
     * that comes twice is the first of the two.
     */
    public static @Nullable Instant deadline(Delivery.@Nullable Deadline deadline, Device device) {
        if (deadline == null) {
            return null;
        }
        return deadline.local() == null ? deadline.at() : instant(LocalDateTime.parse(deadline.local()), zone(device));
    }

    /** The instant of a local time in a zone, as {@link #deadline} says. */
    public static Instant instant(LocalDateTime local, ZoneId zone) {
        var left = zone.getRules().getTransition(local);
        return left != null && left.isGap() ? left.getInstant() : local.atZone(zone).withEarlierOffsetAtOverlap().toInstant();
    }
}
