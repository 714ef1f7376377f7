package rivo.server.estate;

import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;

/**
 * The estate as it is now. Any number of threads may read it; only the {@link Road} puts a new one in its place, after
 * its change is on disk.
 */
@Component
public class WorkingEstate {

    private volatile Estate now;

    WorkingEstate(EstateRecords records) {
        this.now = records.read();
    }

    public Estate now() {
        return now;
    }

    void become(Estate next) {
        now = next;
    }
}
