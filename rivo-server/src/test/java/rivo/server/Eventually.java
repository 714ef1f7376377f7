package rivo.server;

import static org.awaitility.Awaitility.await;

import java.time.Duration;
import java.util.concurrent.Callable;

/** Waits for what comes by itself: that it comes is held, not how soon, which is the machine's. */
public final class Eventually {

    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final Duration PAUSE = Duration.ofMillis(20);

    private Eventually() {
    }

    /** Until it holds; fails where it does not within a minute. */
    public static void until(Callable<Boolean> condition) {
        await().pollDelay(Duration.ZERO).pollInterval(PAUSE).atMost(PATIENCE).until(condition);
    }
}
