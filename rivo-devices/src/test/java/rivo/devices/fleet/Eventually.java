package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.function.BooleanSupplier;

/** Waits for what devices do in threads of their own. */
final class Eventually {

    /** Longer than a request is waited for, so that one that was lost on the way is made again in between. */
    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final long PAUSE_MILLIS = 5;

    private Eventually() {
    }

    /** Until it holds; fails where it does not within a minute. */
    static void until(BooleanSupplier condition) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("in time").isLessThan(end);
            try {
                Thread.sleep(PAUSE_MILLIS);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }
}
