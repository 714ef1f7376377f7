package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.function.BooleanSupplier;

/** Waits for what devices do in threads of their own. */
final class Eventually {

    private static final Duration PAUSE = Duration.ofMillis(10);

    private Eventually() {
    }

    /**
     * Until it holds; fails where it does not by then.
     *
     * @param limit of the time in which whoever waits was let run, too: a machine that stands still for some seconds lets devices do nothing either
     */
    static void within(Duration limit, BooleanSupplier condition) {
        for (long looks = limit.dividedBy(PAUSE); !condition.getAsBoolean(); looks--) {
            assertThat(looks).as("looks left, of one each " + PAUSE.toMillis() + " ms").isPositive();
            try {
                Thread.sleep(PAUSE.toMillis());
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }
}
