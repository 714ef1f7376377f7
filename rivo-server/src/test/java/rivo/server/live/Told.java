package rivo.server.live;

import static rivo.server.Eventually.until;

import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import rivo.server.TestServer;

/** What those who look are told has changed. */
public final class Told {

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
        until(() -> {
            events.endRound();
            told.addAll(events.since(before));
            return told.containsAll(wanted);
        });
    }
}
