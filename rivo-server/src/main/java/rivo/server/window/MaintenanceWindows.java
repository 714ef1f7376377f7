package rivo.server.window;

import java.time.DayOfWeek;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.audience.Positions;
import rivo.core.estate.Device;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.devices.protocol.Window;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The maintenance windows there are. Held in memory; safe for any number of threads. */
@Component
public class MaintenanceWindows {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9-]{0,59}");
    private static final Pattern TIME = Pattern.compile("([01][0-9]|2[0-3]):[0-5][0-9]");
    private static final int LONGEST_NAME = 100;
    private static final int DAY_MINUTES = 1440;
    private static final int MOST = 200;

    private final ChangeWriter writer;
    private final LiveEvents events;
    private volatile Map<String, MaintenanceWindow> windows;

    MaintenanceWindows(ChangeWriter writer, LiveEvents events, JdbcClient db) {
        this.writer = writer;
        this.events = events;
        Map<String, MaintenanceWindow> read = new LinkedHashMap<>();
        db.sql("select * from windows order by place").query((row, n) -> read.put(row.getString("id"), new MaintenanceWindow(
                row.getString("id"), row.getString("name"), row.getString("fits"),
                Json.readList(row.getString("days"), DayOfWeek.class), row.getString("opens"), row.getInt("minutes"))) == null)
                .list();
        this.windows = read;
    }

    public Collection<MaintenanceWindow> all() {
        return windows.values();
    }

    /** Those of a device; none where it may work at any time. */
    public List<Window> of(Resolver resolver, Device device) {
        int position = resolver.estate().devices().position(device.id());
        return windows.values().stream().filter(w -> devices(resolver, w).contains(position)).map(MaintenanceWindow::window).toList();
    }

    static Positions devices(Resolver resolver, MaintenanceWindow window) {
        return window.fits() == null ? Positions.range(0, resolver.estate().devices().size())
                : resolver.audiences().satisfying(window.fits(), Scope.DEVICE);
    }

    /**
     * Devices that could never begin.
     *
     * @param devices how many
     * @param longest that of the windows they have which is open longest
     */
    public record Stuck(int devices, MaintenanceWindow longest) {
    }

    /** Those of the devices whose windows are all shorter than this; null when there are none. */
    public @Nullable Stuck stuck(Resolver resolver, Positions among, int seconds) {
        Positions some = Positions.range(0, 0);
        Positions enough = Positions.range(0, 0);
        for (MaintenanceWindow window : windows.values()) {
            Positions devices = devices(resolver, window).and(among);
            some = some.or(devices);
            enough = window.minutes() * 60 >= seconds ? enough.or(devices) : enough;
        }
        Positions stuck = some.without(enough);
        MaintenanceWindow longest = null;
        for (MaintenanceWindow window : windows.values()) {
            boolean theirs = !devices(resolver, window).and(stuck).isEmpty();
            longest = theirs && (longest == null || window.minutes() > longest.minutes()) ? window : longest;
        }
        return longest == null ? null : new Stuck(stuck.size(), longest);
    }

    /** Puts a window in, or another in its place. @throws RefusedException with everything that is wrong with it */
    public void put(String who, MaintenanceWindow window) {
        check(window);
        writer.take(context -> {
            MaintenanceWindow before = windows.get(window.id());
            if (before == null && windows.size() >= MOST) {
                throw new RefusedException("too-many", "", "There are " + MOST + " windows; delete one first.");
            }
            boolean known = context.db().sql("select count(*) from windows where id = ?").params(window.id()).query(Long.class)
                    .single() > 0;
            write(context, who, window, known);
            context.journal(who, before == null ? "window-added" : "window-changed", "window:" + window.id(), null, before, window);
            context.afterwards(() -> remember(window.id(), window));
            return window;
        });
    }

    private static void write(ChangeContext context, String who, MaintenanceWindow window, boolean known) {
        if (!known) {
            context.db().sql("insert into windows (id, name, fits, days, opens, minutes, changed_by, changed_at) "
                    + "values (?, '', null, '[]', '', 0, '', ?)").params(window.id(), Rows.at(context.now())).update();
        }
        context.db().sql("update windows set name = ?, fits = ?, days = ?, opens = ?, minutes = ?, changed_by = ?, changed_at = ? "
                + "where id = ?").params(window.name(), window.fits(), Json.write(window.days()), window.opens(), window.minutes(), who,
                        Rows.at(context.now()), window.id()).update();
    }

    /** @throws ApiException when there is no such window */
    void delete(String who, String id) {
        writer.take(context -> {
            MaintenanceWindow window = windows.get(id);
            if (window == null) {
                throw ApiException.notFound("unknown-window", "There is no window " + id + "; pick one from the list.");
            }
            context.db().sql("delete from windows where id = ?").params(id).update();
            context.journal(who, "window-deleted", "window:" + id, null, window, null);
            context.afterwards(() -> remember(id, null));
            return id;
        });
    }

    private void remember(String id, @Nullable MaintenanceWindow window) {
        Map<String, MaintenanceWindow> next = new LinkedHashMap<>(windows);
        if (window == null) {
            next.remove(id);
        } else {
            next.put(id, window);
        }
        windows = next;
        events.changed(Topics.ESTATE);
    }

    private static void check(MaintenanceWindow window) {
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
