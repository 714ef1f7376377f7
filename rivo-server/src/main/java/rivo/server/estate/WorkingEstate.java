package rivo.server.estate;

import java.time.Clock;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;

/**
 * The estate as it is now. Any number of threads may read it; only the {@link ChangeWriter} puts a new one in its place, after
 * its change is on disk.
 */
@Component
public class WorkingEstate {

    private volatile Resolver now;

    WorkingEstate(EstateRecords records, Clock clock) {
        this.now = Resolver.of(records.read(clock.instant()));
    }

    public Estate now() {
        return now.estate();
    }

    /** The same with everything that has been found out about it; {@code resolver().estate()} is its estate. */
    public Resolver resolver() {
        return now;
    }

    void become(Estate next) {
        if (next != now.estate()) {
            now = now.follow(next);
        }
    }
}
