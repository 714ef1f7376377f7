package rivo.server.fleet;

import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;

/**
 * Tells apart the jobs of one device.
 *
 * @param person the id of the person whose job it is; empty for the device's
 */
public record JobKey(String title, String person) {

    public static JobKey of(String title, @Nullable String person) {
        return new JobKey(title, person == null ? "" : person);
    }

    static JobKey of(Progress progress) {
        return of(progress.title(), progress.person());
    }

    static JobKey of(Report.Found found) {
        return of(found.title(), found.person());
    }
}
