package rivo.devices.protocol;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * How one job stands.
 *
 * @param person the id of the person whose job it is; null for the device's
 * @param step the step under way, or the last one, from 1 on
 * @param percent of the whole job, 0 to 100
 * @param message what the device is doing, or what went wrong, in words
 * @param exitCode of the command that ran last; null when none did
 * @param waits what a waiting job waits for, and a failed one before its next try; null where the device does not say
 * @param fetching how much of the content is there, while a step fetches it; null otherwise
 */
public record Progress(String title, @Nullable String person, JobAction action, @Nullable String version, JobState state, int step, int steps,
        int percent, String message, @Nullable Integer exitCode, Instant at, @Nullable Wait waits, @Nullable Fetching fetching) {

    /** One that neither waits nor fetches. */
    public Progress(String title, @Nullable String person, JobAction action, @Nullable String version, JobState state, int step, int steps,
            int percent, String message, @Nullable Integer exitCode, Instant at) {
        this(title, person, action, version, state, step, steps, percent, message, exitCode, at, null, null);
    }

    /** The same, waiting. */
    public Progress waiting(WaitReason reason, @Nullable Instant until) {
        return new Progress(title, person, action, version, state, step, steps, percent, message, exitCode, at, new Wait(reason, until), null);
    }

    /** The same, fetching. */
    public Progress fetching(long bytes, long all) {
        return new Progress(title, person, action, version, state, step, steps, percent, message, exitCode, at, null, new Fetching(bytes, all));
    }

    /** @param until when that is expected; null where nobody knows */
    public record Wait(WaitReason reason, @Nullable Instant until) {
    }

    /** @param bytes of {@code all} that are there */
    public record Fetching(long bytes, long all) {
    }
}
