package rivo.server.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import rivo.server.TestServer;

/** What those who look are told has changed. */
public final class Told {

    private static final Duration SOON = Duration.ofSeconds(5);

    private Told() {
    }

    /** Does something, by which these topics change, whatever else may. */
    public static void by(TestServer server, Runnable act, String... topics) {
        LiveEvents events = server.bean(LiveEvents.class);
        events.endRound();
        long before = events.now();
        act.run();
        Collection<String> wanted = Set.of(topics);
        Set<String> told = new HashSet<>();
        // What is told comes after the answer.
        for (long end = System.nanoTime() + SOON.toNanos(); !told.containsAll(wanted) && System.nanoTime() < end; Thread.onSpinWait()) {
            events.endRound();
            told.addAll(events.since(before));
        }
        assertThat(told).containsAll(wanted);
    }
}
