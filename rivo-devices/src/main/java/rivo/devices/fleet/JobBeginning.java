package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;
import rivo.devices.protocol.Work;

/** When windows and its deadline let a job begin on a simulated device, and what is said until then. By the clock of this computer. */
record JobBeginning(Work work, Job job) {

    /** Whether a window is open long enough for all of it; without windows, and from when on they do not count for it, always. */
    boolean isNow() {
        LocalDateTime local = LocalDateTime.now();
        return work.windows().isEmpty() || job.isAnyTime(Instant.now()) || work.windows().stream()
                .anyMatch(w -> w.left(local).compareTo(Duration.ofSeconds(job.longestSeconds())) >= 0 && !w.left(local).isZero());
    }

    /** When the next window opens, or the deadline comes; null where neither keeps it. */
    @Nullable Instant next() {
        LocalDateTime local = LocalDateTime.now();
        Instant window = work.windows().stream().map(w -> w.next(local)).min(Comparator.naturalOrder()).map(w -> w.atZone(ZoneId.systemDefault()).toInstant())
                .orElse(null);
        Instant anyTime = job.anyTimeFrom();
        return window != null && anyTime != null && anyTime.isBefore(window) ? anyTime : window;
    }

    /** How it waits for that. */
    Progress waits() {
        Instant next = Objects.requireNonNullElse(next(), Instant.now());
        return next.equals(job.anyTimeFrom()) ? waiting("waits for its deadline, " + AskedJob.words(next)).waiting(WaitReason.DEADLINE, next)
                : waiting("waits for its window, which opens " + AskedJob.words(next)).waiting(WaitReason.WINDOW, next);
    }

    /** How it waits for another to end. @param name what that installs or removes */
    Progress waitsAfter(String name) {
        return waiting("begins after " + name);
    }

    /** How it waits for somebody. @param person as they are called */
    Progress waitsFor(String person) {
        return waiting("waits for the next sign-in of " + person).waiting(WaitReason.SIGN_IN, null);
    }

    private Progress waiting(String message) {
        return new Progress(job.title(), job.person(), job.action(), job.version(), JobState.WAITING, 1, job.steps().size(), 0, message, null, Instant.now());
    }
}
