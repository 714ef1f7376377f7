package rivo.devices.protocol;

import java.time.Instant;
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
 * @param notices how what is told and asked stands, where that has changed, the newest last
 * @param fetched what content it has fetched since the last report, and from where
 */
public record Report(long number, @Nullable Map<String, String> facts, @Nullable List<Software> software,
        @Nullable List<Found> present, @Nullable List<Progress> progress, @Nullable List<Fetched> fetched, @Nullable List<String> signedIn,
        @Nullable List<Told> notices) {

    /** One that says nothing of notices. */
    public Report(long number, @Nullable Map<String, String> facts, @Nullable List<Software> software, @Nullable List<Found> present,
            @Nullable List<Progress> progress, @Nullable List<Fetched> fetched, @Nullable List<String> signedIn) {
        this(number, facts, software, present, progress, fetched, signedIn, null);
    }

    /**
     * How a notice stands.
     *
     * @param notice by which the device tells it from all its others; small letters, digits and hyphens
     * @param titles what it is about: of those that need the same restart, all
     * @param person the id of who has been shown it, or answered; null where nobody has
     * @param until when one that is put off is asked again, and when a countdown ends; null otherwise
     * @param left how often it may still be put off; null of what does not ask
     * @param last when it counts down at the latest, whoever puts it off; null of what does not ask
     * @param answer what {@code person} has just said to it; null where nobody has
     */
    public record Told(String notice, NoticeKind kind, List<String> titles, @Nullable String person, NoticeState state, Instant at, @Nullable Instant until,
            @Nullable Integer left, @Nullable Instant last, @Nullable NoticeAnswer answer) {

        public Told {
            titles = titles == null ? List.of() : List.copyOf(titles);
        }
    }

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
