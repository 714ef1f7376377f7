package rivo.server.estate;

import java.time.Instant;

/** Reads everything from H2. */
public interface SnapshotReader {

    /** @param asOf the instant that it is to describe: now */
    Snapshot read(Instant asOf);
}
