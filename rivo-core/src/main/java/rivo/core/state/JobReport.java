package rivo.core.state;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.plan.Action;

/**
 * What a device last said of a job.
 *
 * @param version the release that it puts on; null for a removal
 * @param fetching whether the step under way fetches content
 * @param waitsFor what a waiting one waits for; null where the device does not say
 */
public record JobReport(Action.Kind kind, @Nullable String version, Stage stage, boolean fetching, @Nullable WaitsFor waitsFor) {

    /** How far it is. */
    public enum Stage {
        RUNNING, WAITING, DONE, FAILED
    }

    public JobReport {
        Objects.requireNonNull(kind);
        Objects.requireNonNull(stage);
    }

    boolean isFor(Action.Kind wanted, @Nullable String wantedVersion) {
        return kind == wanted && Objects.equals(version, wantedVersion);
    }
}
