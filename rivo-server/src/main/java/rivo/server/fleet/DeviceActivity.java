package rivo.server.fleet;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;

/**
 * How one device is doing.
 *
 * @param lastSeen its last call-in or report; null when it never called
 * @param nextDue when it said it would call in again; null when it never called
 * @param jobs by title, as last reported
 */
record DeviceActivity(@Nullable Instant lastSeen, @Nullable Instant nextDue, Map<String, Progress> jobs) {

    static final DeviceActivity NOTHING = new DeviceActivity(null, null, Map.of());

    DeviceActivity {
        jobs = Map.copyOf(jobs);
    }

    DeviceActivity seen(Instant at, Instant next) {
        return new DeviceActivity(at, next, jobs);
    }

    /** @param at null where the instant is not known any more */
    DeviceActivity reported(Iterable<Progress> progress, @Nullable Instant at) {
        Map<String, Progress> newer = new LinkedHashMap<>(jobs);
        progress.forEach(one -> newer.put(one.title(), one));
        return new DeviceActivity(at == null ? lastSeen : at, nextDue, newer);
    }

    Optional<Progress> any(JobState state) {
        return jobs.values().stream().filter(p -> p.state() == state).findFirst();
    }
}
