package rivo.devices.protocol;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One title that shall be on the device, or off it. A device skips the job when its check shows that it is so.
 *
 * @param version the release to put on; null for a removal
 * @param content what the steps need; null when they need nothing
 * @param steps at least one, carried out in order
 */
public record Job(String title, String name, JobAction action, @Nullable String version, @Nullable Content content,
        List<Step> steps) {

    public Job {
        steps = List.copyOf(steps);
    }

    /**
     * A file, fetched by its hash.
     *
     * @param sha256 64 lower-case hexadecimal digits
     * @param size in bytes
     */
    public record Content(String sha256, long size, String fileName) {
    }

    /**
     * One step.
     *
     * @param text what it does, in the reader's words
     * @param command what {@link StepKind#RUN} runs; null for the others
     * @param limitSeconds the longest it may take
     */
    public record Step(StepKind kind, String text, @Nullable String command, int limitSeconds) {
    }
}
