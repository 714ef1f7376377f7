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
record Doing(@Nullable Instant lastSeen, @Nullable Instant nextDue, Map<String, Progress> jobs) {

    static final Doing NOTHING = new Doing(null, null, Map.of());

    Doing {
        jobs = Map.copyOf(jobs);
    }

    Doing seen(Instant at, Instant next) {
        return new Doing(at, next, jobs);
    }

    /** @param at null where the instant is not known any more */
    Doing reported(Iterable<Progress> progress, @Nullable Instant at) {
        Map<String, Progress> newer = new LinkedHashMap<>(jobs);
        progress.forEach(one -> newer.put(one.title(), one));
        return new Doing(at == null ? lastSeen : at, nextDue, newer);
    }

    Optional<Progress> any(JobState state) {
        return jobs.values().stream().filter(p -> p.state() == state).findFirst();
    }
}
