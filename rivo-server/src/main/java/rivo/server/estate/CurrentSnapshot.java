package rivo.server.estate;

import java.time.Clock;
import org.springframework.stereotype.Component;
import rivo.core.resolve.Resolver;

/**
 * The snapshot that answers are made from now. Any number of threads may take it; only the {@link ChangeWriter} puts a new one in its
 * place, after its change is on disk.
 */
@Component
public class CurrentSnapshot {

    private volatile Snapshot now;

    CurrentSnapshot(SnapshotReader reader, Clock clock) {
        this.now = reader.read(clock.instant());
        Thread thread = new Thread(this::lookAtFirst, "first-look");
        thread.setDaemon(true);
        thread.start();
    }

    /** Answers for one device while the rest of the server starts: who is meant by what is worked out by then, and the first who calls in does not wait for it. */
    private void lookAtFirst() {
        Resolver resolver = now.resolver();
        if (resolver.estate().devices().size() > 0) {
            resolver.device(resolver.estate().devices().at(0));
        }
    }

    public Snapshot now() {
        return now;
    }

    /** It is resolved before it is put in place, so that nobody who reads waits for that. */
    void become(Snapshot next) {
        next.resolver();
        now = next;
    }
}
