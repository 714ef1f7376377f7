package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class SeldomCountedTest {

    @Test
    void whoeverAsksAtOnceIsToldTheSameAgainAndAfterAWhileItIsCountedAnew() throws InterruptedException {
        SeldomCounted<Integer> counted = new SeldomCounted<>();
        AtomicInteger counts = new AtomicInteger();
        for (int i = 0; i < 3; i++) {
            assertThat(counted.get(() -> slowly(counts))).isEqualTo(1);
        }
        long begun = System.nanoTime();
        while (counted.get(() -> slowly(counts)) == 1) {
            Thread.sleep(10);
        }
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).as("twenty times as long as it took").isGreaterThan(Duration.ofMillis(500));
    }

    private static int slowly(AtomicInteger counts) {
        try {
            Thread.sleep(100);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return counts.incrementAndGet();
    }
}
