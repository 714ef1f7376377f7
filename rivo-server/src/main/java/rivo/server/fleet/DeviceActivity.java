package rivo.server.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.state.CallInHabit;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;

/**
 * How one device is doing.
 *
 * @param lastSeen its last call-in or report; null when it never called
 * @param nextDue when it said it would call in again; null when it never called
 * @param jobs as last reported
 * @param habit when it used to call in
 */
record DeviceActivity(@Nullable Instant lastSeen, @Nullable Instant nextDue, Map<JobKey, Progress> jobs, CallInHabit habit) {

    private static final Duration GRACE = Duration.ofDays(1);
    static final DeviceActivity NOTHING = new DeviceActivity(null, null, Map.of());

    /** Of one whose habit nobody knows. */
    DeviceActivity(@Nullable Instant lastSeen, @Nullable Instant nextDue, Map<JobKey, Progress> jobs) {
        this(lastSeen, nextDue, jobs, CallInHabit.NONE);
    }

    DeviceActivity {
        jobs = Map.copyOf(jobs);
    }

    /** Whether it has not called in for longer than it said it would, by more than a day. */
    boolean isOverdue(Instant now) {
        return nextDue != null && nextDue.plus(GRACE).isBefore(now);
    }

    Optional<Progress> any(JobState state) {
        return jobs.values().stream().filter(p -> p.state() == state).findFirst();
    }
}
