package rivo.server;

import static org.awaitility.Awaitility.await;

import java.time.Duration;
import java.util.concurrent.Callable;

/** Waits for what comes by itself. */
public final class Eventually {

    private static final Duration PAUSE = Duration.ofMillis(20);

    private Eventually() {
    }

    /** Until it holds; fails where it does not by then. */
    public static void within(Duration limit, Callable<Boolean> condition) {
        await().pollDelay(Duration.ZERO).pollInterval(PAUSE).atMost(limit).until(condition);
    }
}
