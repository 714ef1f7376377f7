package rivo.devices.protocol;

import java.util.List;

/**
 * What a device shall bring about, in order, and what it shall look for.
 *
 * @param checks one for each title of the catalogue: the device reports which it finds
 */
public record Work(List<Job> jobs, List<Check> checks) {

    public Work {
        jobs = List.copyOf(jobs);
        checks = List.copyOf(checks);
    }

    /** A presence check by the name in the device's own list of installed software. */
    public record Check(String title, String inventoryName) {
    }
}
