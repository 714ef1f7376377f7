package rivo.server.fleet;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Window;
import rivo.devices.protocol.Work;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.mirror.Mirrors;
import rivo.server.window.MaintenanceWindows;
import rivo.server.window.WindowDocument;

/**
 * The tags of what devices were told last, for as long as nothing that work is made from is another: most devices ask again and again and
 * there is nothing new, and their work need not be made for that. Safe for any number of threads.
 *
 * <p><b>When it holds.</b> The catalogue, assignments, choices, mirrors and windows are the very same; so are OUs, people, groups and
 * collections; so is all that has been found out about titles ({@link Resolver#keepsAllOf}); the instant is, too, or no step looks at it. Then
 * the work of a device can only be another if the device itself is, or if it is in other windows or near other mirrors: that is looked at for
 * each. What other devices report of their jobs and of themselves, and ticks, therefore mostly change nothing here.
 */
final class ToldWork {

    /** What the work of a device is made from, besides the estate. */
    private static final List<SnapshotPart<?>> PARTS = List.of(AssignmentDocument.KIND, Titles.PART, FixedChoices.PART, Mirrors.PART,
            WindowDocument.KIND);

    /** @param serverKey what the device was told of the server's key; null where nothing */
    private record Told(Device device, @Nullable String serverKey, List<Window> windows, List<Work.Mirror> mirrors, String etag) {
    }

    /** @param snapshot the latest for which it is known to hold; null at the beginning */
    private record Of(@Nullable Snapshot snapshot, Map<String, Told> byDevice) {
    }

    private volatile Of known = new Of(null, Map.of());

    private static boolean isSame(Snapshot one, Snapshot other) {
        for (SnapshotPart<?> part : PARTS) {
            if (one.get(part) != other.get(part)) {
                return false;
            }
        }
        Estate was = one.estate();
        Estate is = other.estate();
        return was == is || was.ous() == is.ous() && was.users() == is.users() && was.groups() == is.groups()
                && was.collections() == is.collections() && was.gone() == is.gone()
                && (was.asOf().equals(is.asOf()) || !one.get(Titles.PART).haveTimedSteps()) && other.resolver().keepsAllOf(one.resolver());
    }

    /** What is known of a snapshot; null where nothing is. An older snapshot is let go as soon as what is known holds for another. */
    private @Nullable Map<String, Told> of(Snapshot now) {
        Of of = known;
        if (of.snapshot() == now) {
            return of.byDevice();
        }
        if (of.snapshot() == null || !isSame(of.snapshot(), now)) {
            return null;
        }
        known = new Of(now, of.byDevice());
        return of.byDevice();
    }

    /** The tag of what this device is to be told; null where that has to be found out. */
    @Nullable String etag(Snapshot now, Device device, @Nullable String serverKey) {
        Map<String, Told> byDevice = of(now);
        Told told = byDevice == null ? null : byDevice.get(device.id());
        return told != null && told.device() == device && Objects.equals(told.serverKey(), serverKey)
                && told.windows().equals(MaintenanceWindows.of(now, device)) && told.mirrors().equals(Mirrors.of(now, device)) ? told.etag() : null;
    }

    void told(Snapshot now, Device device, @Nullable String serverKey, Work work, String etag) {
        Map<String, Told> byDevice = of(now);
        if (byDevice == null) {
            byDevice = new ConcurrentHashMap<>();
            known = new Of(now, byDevice);
        }
        byDevice.put(device.id(), new Told(device, serverKey, work.windows(), work.mirrors(), etag));
    }
}
