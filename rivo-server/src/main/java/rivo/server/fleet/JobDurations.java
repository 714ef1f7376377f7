package rivo.server.fleet;

import java.time.Duration;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.JobAction;

/** How long jobs take. */
interface JobDurations {

    /** Of which nothing is known. */
    JobDurations UNKNOWN = (title, action, share) -> null;

    /**
     * In which time so many of a title's jobs are done.
     *
     * @param share 0 to 1
     * @return null where nothing is known
     */
    @Nullable Duration within(String title, JobAction action, double share);
}
