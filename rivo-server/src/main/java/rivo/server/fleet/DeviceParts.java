package rivo.server.fleet;

import java.util.Map;
import org.pcollections.PMap;
import rivo.devices.protocol.Progress;
import rivo.server.estate.SnapshotPart;

/** What a snapshot holds of devices besides the estate. */
public final class DeviceParts {

    /** By what each enrolled device signs. */
    public static final SnapshotPart<? extends PMap<String, ?>> ENROLMENTS = Enrolments.PART;
    /** What devices have said of their jobs: by the device's id, then by job. */
    public static final SnapshotPart<PMap<String, Map<JobKey, Progress>>> JOBS = ArrivedReports.JOBS;
    /** The number of the last report that was taken of each device. */
    public static final SnapshotPart<PMap<String, Long>> LAST_NUMBERS = ArrivedReports.LAST_NUMBERS;

    private DeviceParts() {
    }
}
