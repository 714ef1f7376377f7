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
 */
public record Progress(String title, @Nullable String person, JobAction action, @Nullable String version, JobState state, int step, int steps,
        int percent, String message, @Nullable Integer exitCode, Instant at) {
}
