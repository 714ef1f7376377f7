package rivo.server.notice;

import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.QuietHours;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.estate.Snapshot;

/**
 * When people are not told anything that does not count down: the organisation's quiet hours, each day by the device's own clock. There is one at
 * the most.
 *
 * @param from the time of day, {@code HH:MM}
 * @param to likewise; before {@code from} for one of the next day
 */
public record QuietHoursDocument(String id, String from, String to) implements Document {

    public static final DocumentKind<QuietHoursDocument> KIND = new Kind();
    static final String ID = "organisation";

    public static QuietHoursDocument of(@Nullable String from, @Nullable String to) {
        return new QuietHoursDocument(ID, from == null ? "" : from, to == null ? "" : to);
    }

    /** Null where there are none. */
    public static @Nullable QuietHoursDocument find(Snapshot snapshot) {
        return snapshot.get(KIND).find(ID);
    }

    /** In the words of the device protocol; null where there are none. */
    public static @Nullable QuietHours hours(Snapshot snapshot) {
        QuietHoursDocument document = find(snapshot);
        return document == null ? null : new QuietHours(LocalTime.parse(document.from), LocalTime.parse(document.to));
    }

    private void check() {
        LocalTime begins = time("from", from);
        if (begins.equals(time("to", to))) {
            throw new RefusedException("bad-time", "to", "Quiet hours that begin and end at the same time would never end; choose another end, or take them out.");
        }
    }

    private static LocalTime time(String place, String text) {
        try {
            if (text.length() == "HH:MM".length()) {
                return LocalTime.parse(text);
            }
        } catch (DateTimeParseException e) {
            throw bad(place, text);
        }
        throw bad(place, text);
    }

    private static RefusedException bad(String place, String text) {
        return new RefusedException("bad-time", place, "\"" + text + "\" is no time of day; write it like 20:30.");
    }

    /** No resolution looks at them. */
    private static final class Kind extends DocumentKind<QuietHoursDocument> {

        Kind() {
            super("quiet-hours", QuietHoursDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<QuietHoursDocument> put, Set<String> retired) {
            put.forEach(QuietHoursDocument::check);
            return before;
        }
    }
}
