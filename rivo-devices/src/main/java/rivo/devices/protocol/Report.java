package rivo.devices.protocol;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a device says of itself. What is null is as it was last time.
 *
 * @param number counts the device's reports from 1 on; one that is not above the last taken is not taken again
 * @param facts by the names of the rule language
 * @param software the device's own list of installed software
 * @param present the catalogue's titles that its checks found
 * @param progress how its jobs stand, the newest last
 */
public record Report(long number, @Nullable Map<String, String> facts, @Nullable List<Software> software,
        @Nullable List<Found> present, @Nullable List<Progress> progress) {

    /** An entry of the device's list of installed software. */
    public record Software(String name, @Nullable String publisher, @Nullable String version) {
    }

    /** A title that was found. */
    public record Found(String title, @Nullable String version) {
    }
}
