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
 * @param signedIn the accounts of the directory's people who are signed in now; a device that has never said it is told nothing for people
 * @param progress how its jobs stand, the newest last
 * @param fetched what content it has fetched since the last report, and from where
 */
public record Report(long number, @Nullable Map<String, String> facts, @Nullable List<Software> software,
        @Nullable List<Found> present, @Nullable List<Progress> progress, @Nullable List<Fetched> fetched, @Nullable List<String> signedIn) {

    /** An entry of the device's list of installed software. */
    public record Software(String name, @Nullable String publisher, @Nullable String version) {
    }

    /**
     * Content that was fetched.
     *
     * @param mirror the id of the mirror; null for the server itself
     * @param bytes how much of it came from there
     */
    public record Fetched(String sha256, @Nullable String mirror, long bytes) {
    }

    /** A title that was found. @param person the id of the person in whose profile; null for the device */
    public record Found(String title, @Nullable String version, @Nullable String person) {

        /** One on the device. */
        public Found(String title, @Nullable String version) {
            this(title, version, null);
        }
    }
}
