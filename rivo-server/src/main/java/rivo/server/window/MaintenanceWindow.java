package rivo.server.window;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Window;

/**
 * When some devices may carry jobs out. A device that none fits may at any time; one that several fit, in any of them.
 *
 * @param fits a rule: the devices it holds for; null for all
 * @param days on which it opens, by the device's own clock
 * @param opens the time of day, {@code HH:MM}
 * @param minutes how long it stays open, 1 to 1,440; past midnight too
 */
public record MaintenanceWindow(String id, String name, @Nullable String fits, List<DayOfWeek> days, String opens, int minutes) {

    public MaintenanceWindow {
        id = id == null ? "" : id;
        name = name == null ? "" : name.strip();
        fits = fits == null || fits.isBlank() ? null : fits.strip();
        days = days == null ? List.of() : days.stream().distinct().sorted().toList();
        opens = opens == null ? "" : opens;
    }

    /** In the words of the device protocol. */
    Window window() {
        return new Window(new java.util.HashSet<>(days), LocalTime.parse(opens), minutes);
    }
}
