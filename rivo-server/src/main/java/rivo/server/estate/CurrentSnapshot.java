package rivo.server.estate;

import java.time.Clock;
import org.springframework.stereotype.Component;

/**
 * The snapshot that answers are made from now. Any number of threads may take it; only the {@link ChangeWriter} puts a new one in its
 * place, after its change is on disk.
 */
@Component
public class CurrentSnapshot {

    private volatile Snapshot now;

    CurrentSnapshot(SnapshotReader reader, Clock clock) {
        this.now = reader.read(clock.instant());
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
