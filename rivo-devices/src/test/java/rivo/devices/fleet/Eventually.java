package rivo.devices.fleet;

import static org.awaitility.Awaitility.await;

import java.time.Duration;
import java.util.concurrent.Callable;

/** Waits for what devices do in threads of their own. */
final class Eventually {

    /** Longer than a request is waited for, so that one that was lost on the way is made again in between. */
    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final Duration PAUSE = Duration.ofMillis(5);

    private Eventually() {
    }

    /** Until it holds; fails where it does not within a minute. */
    static void until(Callable<Boolean> condition) {
        await().pollDelay(Duration.ZERO).pollInterval(PAUSE).atMost(PATIENCE).until(condition);
    }
}
