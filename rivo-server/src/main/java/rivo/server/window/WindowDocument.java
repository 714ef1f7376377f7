package rivo.server.window;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.devices.protocol.Window;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;

/**
 * When some devices may carry jobs out. A device that none fits may at any time; one that several fit, in any of them.
 *
 * @param fits a rule: the devices it holds for; null for all
 * @param days on which it opens, by the device's own clock
 * @param opens the time of day, {@code HH:MM}
 * @param minutes how long it stays open, 1 to 1,440; past midnight too
 */
public record WindowDocument(String id, String name, @Nullable String fits, List<DayOfWeek> days, String opens, int minutes)
        implements Document {

    public static final DocumentKind<WindowDocument> KIND = new Kind();

    public WindowDocument {
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

    /** No resolution looks at windows. */
    private static final class Kind extends DocumentKind<WindowDocument> {

        Kind() {
            super("window", WindowDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<WindowDocument> put, Set<String> retired) {
            put.forEach(MaintenanceWindows::check);
            return before;
        }
    }
}
