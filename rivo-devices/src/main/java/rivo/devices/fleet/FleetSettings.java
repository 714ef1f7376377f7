package rivo.devices.fleet;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;

/**
 * How the simulated fleet runs.
 *
 * @param folder where the devices keep their state
 * @param livelyInterval how often a lively device calls in
 * @param ordinaryInterval how often the others do
 * @param firstCalls the time over which the ordinary ones spread their first calls
 * @param stepTime how long one step of a job takes
 * @param retryAfter how long a device leaves a job alone that failed or waits
 * @param shelf of a thousand people who sign in, how many take something from their shelf or give it back
 * @param sessions how long somebody stays signed in; zero where the first of a device's people always is
 */
public record FleetSettings(URI server, Path folder, long seed, Duration livelyInterval, Duration ordinaryInterval,
        Duration firstCalls, Duration stepTime, Duration retryAfter, Duration sessions, int shelf) {

    /** One in which nobody uses their shelf. */
    public FleetSettings(URI server, Path folder, long seed, Duration livelyInterval, Duration ordinaryInterval, Duration firstCalls, Duration stepTime,
            Duration retryAfter, Duration sessions) {
        this(server, folder, seed, livelyInterval, ordinaryInterval, firstCalls, stepTime, retryAfter, sessions, 0);
    }
}
