package rivo.server.fleet;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Window;
import rivo.devices.protocol.Work;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.mirror.Mirrors;
import rivo.server.estate.SignIns;
import rivo.server.notice.Notices;
import rivo.server.notice.QuietHoursDocument;
import rivo.server.request.RequestDocument;
import rivo.server.window.MaintenanceWindows;
import rivo.server.window.WindowDocument;

/**
 * The tags of what devices were told last, for as long as nothing that work is made from is another: most devices ask again and again and
 * there is nothing new, and their work need not be made for that. Safe for any number of threads.
 *
 * <p><b>When one counts.</b> The catalogue, choices, mirrors, windows and what assignments say of delivery are the very same; the estate
 * answers the same for whatever is the same ({@link Resolver#answers}); the instant is, too, or no step looks at it. Then the work of a
 * device can only be another if the device itself is, or if it is in other windows or near other mirrors: that is looked at for each. What
 * other devices report of their jobs and of themselves, where they are moved, and ticks, therefore mostly change nothing here.
 */
@Component
final class ToldWork {

    /** What the work of a device is made from, besides the estate. */
    private static final List<SnapshotPart<?>> PARTS = List.of(AssignmentDocument.KIND, Titles.PART, FixedChoices.PART, Mirrors.PART,
            WindowDocument.KIND, QuietHoursDocument.KIND);

    /**
     * What the work of all devices is made from, besides what has been resolved; its parts are compared by identity.
     *
     * @param at the instant; null where no step looks at it
     */
    private record Basis(List<Object> parts, @Nullable Instant at) {

        static Basis of(Snapshot snapshot) {
            return new Basis(PARTS.stream().<Object>map(snapshot::get).toList(),
                    snapshot.get(Titles.PART).haveTimedSteps() ? snapshot.estate().asOf() : null);
        }

        boolean isSame(Basis other) {
            return Objects.equals(at, other.at) && IntStream.range(0, parts.size()).allMatch(i -> parts.get(i) == other.parts.get(i));
        }
    }

    /**
     * @param answer what stands for what was resolved for it
     * @param servesPeople whether it tells who signs in; what its people are called is part of what was resolved
     * @param requests what they have taken and given back
     * @param answers what they have said on their shelves to its notices
     * @param serverKey what the device was told of the server's key; null where nothing
     */
    private record Told(Basis basis, Object answer, Device device, @Nullable String serverKey, List<Window> windows, List<Work.Mirror> mirrors,
            boolean servesPeople, List<RequestDocument> requests, List<Work.Answered> answers, String etag) {
    }

    /**
     * The snapshot that was asked of last, with its basis, and the basis before: a call-in that began before a change may end after others
     * that began later.
     */
    private record Latest(Snapshot snapshot, Basis basis, @Nullable Basis before) {
    }

    private final Map<String, Told> byDevice = new ConcurrentHashMap<>();
    private volatile @Nullable Latest latest;

    private Basis basis(Snapshot now) {
        Latest known = latest;
        if (known != null && known.snapshot() == now) {
            return known.basis();
        }
        Basis basis = Basis.of(now);
        if (known == null) {
            latest = new Latest(now, basis, null);
            return basis;
        }
        if (basis.isSame(known.basis())) {
            latest = new Latest(now, known.basis(), known.before());
            return known.basis();
        }
        Basis before = known.before();
        Latest next = new Latest(now, before != null && basis.isSame(before) ? before : basis, known.basis());
        latest = next;
        if (next.basis() == basis) {
            // What was made from something older counts no more, and would keep that alive.
            byDevice.values().removeIf(told -> told.basis() != basis && told.basis() != known.basis());
        }
        return next.basis();
    }

    /** The tag of what this device is to be told; null where that has to be found out. */
    @Nullable String etag(Snapshot now, Device device, @Nullable String serverKey) {
        Told told = byDevice.get(device.id());
        return told != null && told.device() == device && told.basis() == basis(now)
                && told.answer() == now.resolver().answers().of(device.id()) && Objects.equals(told.serverKey(), serverKey)
                && told.windows().equals(MaintenanceWindows.of(now, device)) && told.mirrors().equals(Mirrors.of(now, device))
                && told.servesPeople() == now.get(SignIns.PART).containsKey(device.id())
                && told.requests().equals(RequestDocument.of(now, device.id())) && told.answers().equals(Notices.answers(now, device.id())) ? told.etag() : null;
    }

    void told(Snapshot now, Device device, @Nullable String serverKey, Work work, String etag) {
        byDevice.put(device.id(), new Told(basis(now), now.resolver().answers().of(device.id()), device, serverKey, work.windows(), work.mirrors(),
                work.people() != null, RequestDocument.of(now, device.id()), Notices.answers(now, device.id()), etag));
    }
}
