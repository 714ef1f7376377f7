package rivo.server.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.DeviceClock;
import rivo.server.estate.Snapshot;
import rivo.server.request.RequestDocument;

/**
 * From when on the jobs of one device do not wait for its maintenance windows (section 2 of the delivery rules): at the deadline where the
 * assignment says that it wins, at any time where it says so, and for what somebody has taken from the shelf or wants sooner. A title that
 * another needs goes by that one's assignment. Finds, too, what an assignment says of delivery otherwise. Used by one thread.
 */
final class JobTimes {

    /** A deadline is spread over so long, so that a whole fleet does not act in the same second. */
    private static final Duration SPREAD = Duration.ofMinutes(10);

    private final Snapshot snapshot;
    private final Device device;
    private @Nullable Map<JobKey, Decision> decisions;

    JobTimes(Snapshot snapshot, Device device) {
        this.snapshot = snapshot;
        this.device = device;
    }

    /** Null where it waits for a window, however long. */
    @Nullable Instant anyTimeFrom(Action action) {
        return anyTimeFrom(action.assignment(), action.title(), action.user());
    }

    /**
     * The same for a unit.
     *
     * @param winner the assignment that decides; null where another title needs this one
     * @param user the person's id; empty for the device
     */
    @Nullable Instant anyTimeFrom(@Nullable Assignment winner, String title, String user) {
        RequestDocument request = RequestDocument.find(snapshot, device.id(), title, user.isEmpty() ? null : user);
        if (request != null && (request.isSooner() || request.isTaken())) {
            // What somebody at the device asks for does not wait.
            return Instant.EPOCH;
        }
        Delivery delivery = delivery(winner, title, user);
        if (delivery == null) {
            return null;
        }
        if ("ignore".equals(delivery.windows())) {
            return Instant.EPOCH;
        }
        Instant deadline = "deadline-wins".equals(delivery.windows()) ? DeviceClock.deadline(delivery.deadline(), device) : null;
        return deadline == null ? null : deadline.plusSeconds(Math.floorMod(device.id().hashCode(), (int) SPREAD.toSeconds()));
    }

    /** What the assignment says that decides a unit, or that of the title which pulls it in; null where none does. Parameters as above. */
    @Nullable Delivery delivery(@Nullable Assignment winner, String title, String user) {
        Assignment assignment = winner != null ? winner : implying(title, user);
        AssignmentDocument document = assignment == null ? null : snapshot.get(AssignmentDocument.KIND).find(assignment.id());
        return document == null ? null : document.delivery();
    }

    /** The assignment of the title that pulls this one in, or of the one that pulls in that. */
    private @Nullable Assignment implying(String title, String user) {
        Map<JobKey, Decision> known = decisions();
        Decision at = known.get(new JobKey(title, user));
        for (int i = 0; i < known.size() && at != null && at.winner() == null && at.by() != null; i++) {
            at = known.get(new JobKey(at.by(), user));
        }
        return at == null ? null : at.winner();
    }

    private Map<JobKey, Decision> decisions() {
        Map<JobKey, Decision> known = decisions;
        if (known == null) {
            known = new HashMap<>();
            for (Resolver.UnitOutcome outcome : snapshot.resolver().device(device)) {
                known.put(new JobKey(outcome.title().id(), outcome.user()), outcome.decision());
            }
            decisions = known;
        }
        return known;
    }
}
