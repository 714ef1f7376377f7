package rivo.server.membership;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.server.directory.MembershipChanges;
import rivo.server.directory.MembershipChanges.MembershipChange;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Rows;

/**
 * How many devices each collection held, and who came into it and left it, and why: looked at once a minute, kept for three months. Looking costs
 * the collections that may be others than a minute ago, beside the writer; it is written together. Used by the scheduler's thread.
 */
@Component
public class CollectionHistory {

    private static final Duration KEPT = Duration.ofDays(90);

    /** How many devices a collection held from an instant on. */
    public record Size(Instant at, int devices) {
    }

    private final CurrentSnapshot current;
    private final ChangeWriter writer;
    private final Clock clock;
    private final Map<String, Integer> written = new HashMap<>();
    private @Nullable Audiences looked;

    CollectionHistory(CurrentSnapshot current, ChangeWriter writer, Clock clock, JdbcClient db) {
        this.current = current;
        this.clock = clock;
        this.writer = writer;
        db.sql("select s.collection, s.devices from collection_sizes s where s.at = (select max(at) from collection_sizes where collection = s.collection)")
                .query(row -> {
                    written.put(row.getString("collection"), row.getInt("devices"));
                });
    }

    /** The sizes of a collection, the oldest first: one for each time that it was another. */
    static List<Size> sizes(JdbcClient db, String collection) {
        return db.sql("select at, devices from collection_sizes where collection = ? order by at").params(collection)
                .query((row, n) -> new Size(Rows.instant(row, "at"), row.getInt("devices"))).list();
    }

    @Scheduled(initialDelayString = "PT5S", fixedDelayString = "PT1M")
    public void look() {
        Audiences now = current.now().resolver().audiences();
        Audiences before = looked;
        List<MembershipChange> changes = new ArrayList<>();
        Map<String, Integer> sizes = new HashMap<>();
        for (DeviceCollection collection : now.estate().collections().values()) {
            DeviceSet devices = now.devicesIn(Target.collection(collection.id()));
            if (!Integer.valueOf(devices.size()).equals(written.get(collection.id()))) {
                sizes.put(collection.id(), devices.size());
            }
            DeviceCollection earlier = before == null ? null : before.estate().collections().get(collection.id());
            if (before != null && earlier != null) {
                changes.addAll(new Comparison(before, earlier, now, collection, clock.instant()).changes());
            }
        }
        try {
            write(changes, sizes);
            looked = now;
        } catch (ChangesRefusedException e) {
            // The log and the health check say so already; what happened meanwhile is told at the next look.
            return;
        }
    }

    private void write(List<MembershipChange> changes, Map<String, Integer> sizes) {
        if (changes.isEmpty() && sizes.isEmpty()) {
            return;
        }
        writer.take(context -> {
            MembershipChanges.write(context, changes);
            context.db().sql("delete from collection_sizes where at < ?").params(Rows.at(context.now().minus(KEPT))).update();
            context.batch("merge into collection_sizes (collection, at, devices) values (?, ?, ?)", sizes.entrySet().stream()
                    .map(one -> new Object[] {one.getKey(), Rows.at(context.now()), one.getValue()}).toList());
            return sizes.size();
        });
        written.putAll(sizes);
    }

    /** One collection as it was at the last look and as it is. */
    private record Comparison(Audiences before, DeviceCollection earlier, Audiences now, DeviceCollection collection, Instant at) {

        /** Too many at once are no news of single devices. */
        List<MembershipChange> changes() {
            List<Device> came = notIn(now, before);
            List<Device> went = notIn(before, now);
            if (came.size() + went.size() > MembershipChanges.MOST_AT_ONCE) {
                return List.of();
            }
            List<MembershipChange> changes = new ArrayList<>();
            came.forEach(device -> changes.add(change(device, true)));
            went.forEach(device -> changes.add(change(device, false)));
            return changes;
        }

        /** Where everyone stands at the same position the sets are compared whole. */
        private List<Device> notIn(Audiences one, Audiences other) {
            Target target = Target.collection(collection.id());
            DeviceSet held = one.devicesIn(target);
            DeviceSet others = other.devicesIn(target);
            Estate estate = other.estate();
            return (one.sameUnitsAs(other) ? held.without(others) : held.filter(position -> {
                Device known = estate.devices().find(one.estate().devices().at(position).id());
                return known == null || !others.contains(estate.devices().position(known.id()));
            })).stream().limit(MembershipChanges.MOST_AT_ONCE + 1L).mapToObj(position -> one.estate().devices().at(position)).toList();
        }

        private MembershipChange change(Device device, boolean came) {
            return new MembershipChange(Target.collection(collection.id()), Target.device(device.id()), came, at, why(device.id(), came),
                    device.name());
        }

        private @Nullable String why(String device, boolean came) {
            if (!collection.equals(earlier)) {
                return "the collection was edited";
            }
            if (now.estate().devices().find(device) == null) {
                return "left the directory";
            }
            if (before.estate().devices().find(device) == null) {
                return "new in the directory";
            }
            Audiences without = came ? before : now;
            String failing = Membership.failing(without, collection, without.estate().devices().position(device));
            return failing.isEmpty() ? null : came ? "until then " + failing : failing;
        }
    }
}
