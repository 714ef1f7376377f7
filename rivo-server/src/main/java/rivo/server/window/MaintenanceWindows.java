package rivo.server.window;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Device;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.devices.protocol.Window;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The maintenance windows there are, and which of them a device has. Safe for any number of threads. */
@Component
public class MaintenanceWindows {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9-]{0,59}");
    private static final Pattern TIME = Pattern.compile("([01][0-9]|2[0-3]):[0-5][0-9]");
    private static final int LONGEST_NAME = 100;
    private static final int DAY_MINUTES = 1440;
    private static final int MOST = 200;

    private final ChangeWriter writer;
    private final LiveEvents events;

    MaintenanceWindows(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    /** All of them, in the order in which they were put in. */
    public static List<WindowDocument> all(Snapshot snapshot) {
        return snapshot.get(WindowDocument.KIND).stream().toList();
    }

    /** Those of a device; none where it may work at any time. */
    public static List<Window> of(Snapshot snapshot, Device device) {
        int position = snapshot.estate().devices().position(device.id());
        return snapshot.get(WindowDocument.KIND).stream().filter(w -> devices(snapshot.resolver(), w).contains(position))
                .map(WindowDocument::window).toList();
    }

    static DeviceSet devices(Resolver resolver, WindowDocument window) {
        return resolver.audiences().devicesWhere(window.fits());
    }

    /**
     * Devices that could never begin.
     *
     * @param devices how many
     * @param longest that of the windows they have which is open longest
     */
    public record Stuck(int devices, WindowDocument longest) {
    }

    /** Those of the devices whose windows are all shorter than this; null when there are none. */
    public static @Nullable Stuck stuck(Snapshot snapshot, DeviceSet among, int seconds) {
        Resolver resolver = snapshot.resolver();
        List<WindowDocument> windows = all(snapshot);
        DeviceSet some = DeviceSet.NONE;
        DeviceSet enough = DeviceSet.NONE;
        for (WindowDocument window : windows) {
            DeviceSet devices = devices(resolver, window).and(among);
            some = some.or(devices);
            enough = window.minutes() * 60 >= seconds ? enough.or(devices) : enough;
        }
        DeviceSet stuck = some.without(enough);
        WindowDocument longest = null;
        for (WindowDocument window : windows) {
            boolean theirs = !devices(resolver, window).and(stuck).isEmpty();
            longest = theirs && (longest == null || window.minutes() > longest.minutes()) ? window : longest;
        }
        return longest == null ? null : new Stuck(stuck.size(), longest);
    }

    /**
     * Devices whose windows all come too late.
     *
     * @param names of the windows they have
     */
    public record Late(DeviceSet devices, List<String> names) {
    }

    /**
     * Those of the devices that have windows, none of which is open or opens before a deadline. Costs a look at each device that has windows.
     *
     * @param now by the clock of the device at this position
     * @param deadline likewise
     */
    public static Late late(Snapshot snapshot, DeviceSet among, IntFunction<LocalDateTime> now, IntFunction<LocalDateTime> deadline) {
        DeviceSet some = DeviceSet.NONE;
        DeviceSet inTime = DeviceSet.NONE;
        List<WindowDocument> windows = all(snapshot);
        for (WindowDocument window : windows) {
            DeviceSet devices = devices(snapshot.resolver(), window).and(among);
            Window hours = window.window();
            some = some.or(devices);
            inTime = inTime.or(devices.filter(p -> opensBetween(hours, now.apply(p), deadline.apply(p))));
        }
        DeviceSet late = some.without(inTime);
        return new Late(late, windows.stream().filter(w -> !devices(snapshot.resolver(), w).and(late).isEmpty()).map(WindowDocument::name).toList());
    }

    private static boolean opensBetween(Window hours, LocalDateTime now, LocalDateTime deadline) {
        return now.isBefore(deadline) && (!hours.left(now).isZero() || hours.next(now).isBefore(deadline));
    }

    /** Puts a window in, or another in its place. @throws RefusedException with everything that is wrong with it */
    public void put(String who, WindowDocument window) {
        writer.take(context -> {
            Documents<WindowDocument> windows = context.get(WindowDocument.KIND);
            WindowDocument before = windows.find(window.id());
            if (before == null && windows.size() >= MOST) {
                throw new RefusedException("too-many", "", "There are " + MOST + " windows; delete one first.");
            }
            WindowDocument.KIND.put(context, List.of(new Kept<>(window, windows.revision(window.id()) + 1, who, context.now(), null)));
            context.journal(who, before == null ? "window-added" : "window-changed", "window:" + window.id(), null, before, window);
            context.afterwards(() -> events.changed(Topics.WINDOWS));
            return window;
        });
    }

    /** @throws ApiException when there is no such window */
    void delete(String who, String id) {
        writer.take(context -> {
            WindowDocument window = context.get(WindowDocument.KIND).find(id);
            if (window == null) {
                throw ApiException.notFound("unknown-window", "There is no window " + id + "; pick one from the list.");
            }
            WindowDocument.KIND.remove(context, id);
            context.journal(who, "window-deleted", "window:" + id, null, window, null);
            context.afterwards(() -> events.changed(Topics.WINDOWS));
            return id;
        });
    }

    /** @throws RefusedException with everything that is wrong with it by itself */
    static void check(WindowDocument window) {
        List<Problem> problems = new ArrayList<>();
        if (!ID.matcher(window.id()).matches()) {
            problems.add(new Problem("bad-id", "id", "An id has 1 to 60 small letters, digits and hyphens, such as control-rooms."));
        }
        if (window.name().isEmpty() || window.name().length() > LONGEST_NAME) {
            problems.add(new Problem("bad-text", "name", "A window has a name of 1 to " + LONGEST_NAME + " characters."));
        }
        if (window.days().isEmpty()) {
            problems.add(new Problem("no-day", "days", "A window opens on at least one day; choose some, or delete it."));
        }
        if (!TIME.matcher(window.opens()).matches()) {
            problems.add(new Problem("bad-time", "opens", "A window opens at a time of day, such as 22:30."));
        }
        if (window.minutes() < 1 || window.minutes() > DAY_MINUTES) {
            problems.add(new Problem("bad-minutes", "minutes", "A window stays open from 1 minute to a day, 1,440 minutes."));
        }
        if (window.fits() != null) {
            try {
                Rule.parse(window.fits());
            } catch (RuleException e) {
                problems.add(new Problem("bad-rule", "fits", String.valueOf(e.getMessage())));
            }
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
