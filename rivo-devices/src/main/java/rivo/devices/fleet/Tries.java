package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;

/**
 * When a simulated device tries its jobs again (section 3 of the delivery rules): after a failure in 15 minutes, an hour, 4 hours, then once a
 * day; where an installer was busy, after the minutes that its exit code asks for, five times. All of it in a time of its own, in which the
 * first of these waits may be shorter. Used by one thread.
 */
final class Tries {

    /** How often an installer may say that it is to be run again. */
    static final int MOST_AGAIN = 5;
    /** In quarters of an hour. */
    private static final int[] AFTER_FAILURE = {1, 4, 16, 96};
    private static final int QUARTER_MINUTES = 15;

    private final Duration quarter;
    private final Map<String, Instant> notBefore = new HashMap<>();

    /** @param quarter what a quarter of an hour takes */
    Tries(Duration quarter) {
        this.quarter = quarter;
    }

    boolean isDue(String job, Instant now) {
        return !now.isBefore(notBefore.getOrDefault(job, Instant.MIN));
    }

    /** How long until this job is tried again; zero where nothing keeps it. */
    Duration left(String job, Instant now) {
        Instant next = notBefore.get(job);
        return next == null || !next.isAfter(now) ? Duration.ZERO : Duration.between(now, next);
    }

    /** @param times how often it has failed, at least 1 */
    Instant afterFailure(String job, int times, Instant now) {
        return in(job, quarter.multipliedBy(AFTER_FAILURE[Math.min(times, AFTER_FAILURE.length) - 1]), now);
    }

    Instant afterMinutes(String job, int minutes, Instant now) {
        return in(job, quarter.multipliedBy(Math.max(1, minutes)).dividedBy(QUARTER_MINUTES), now);
    }

    /** Of one that waits for something that it has to look for. */
    Instant afterALook(String job, Instant now) {
        return in(job, quarter, now);
    }

    private Instant in(String job, Duration wait, Instant now) {
        Instant next = now.plus(wait);
        notBefore.put(job, next);
        return next;
    }

    void forget(String job) {
        notBefore.remove(job);
    }
}
