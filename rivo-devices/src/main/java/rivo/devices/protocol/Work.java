package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Version;

/**
 * What a device shall bring about, in order, and what it shall look for.
 *
 * @param checks one for each title of the catalogue that can be seen on the device: it reports which it finds
 * @param people who use it; null, as are {@code personChecks}, for a device that has not said who is signed in
 * @param personChecks one for each title that can be seen in a person's profile: the device reports for whom it finds it
 * @param windows when jobs may be carried out; without any, at any time
 * @param mirrors where content is to be had nearby, the first to ask first; the server itself comes last
 * @param quietHours when nobody is told what does not count down; null for never
 * @param answers what somebody has said on the shelf to notices of this device that are open; null for nothing
 * @param menu what the device shows in its own menu; null for nothing
 * @param serverKey the server's new public key, by which the device shall sign from now on; null while its own is the current one
 */
public record Work(List<Job> jobs, List<Check> checks, List<Mirror> mirrors, List<Window> windows, @Nullable List<Person> people,
        @Nullable List<Check> personChecks, @Nullable String serverKey, @Nullable QuietHours quietHours, @Nullable List<Answered> answers, @Nullable List<Entry> menu) {

    public Work {
        jobs = List.copyOf(jobs);
        checks = List.copyOf(checks);
        mirrors = mirrors == null ? List.of() : List.copyOf(mirrors);
        windows = windows == null ? List.of() : List.copyOf(windows);
        people = people == null ? null : List.copyOf(people);
        personChecks = personChecks == null ? null : List.copyOf(personChecks);
        answers = answers == null || answers.isEmpty() ? null : List.copyOf(answers);
        menu = menu == null || menu.isEmpty() ? null : List.copyOf(menu);
    }

    public Work(List<Job> jobs, List<Check> checks, List<Mirror> mirrors, List<Window> windows) {
        this(jobs, checks, mirrors, windows, null, null, null, null, null, null);
    }

    /** Nothing to do. */
    public static Work nothing() {
        return new Work(List.of(), List.of(), List.of(), List.of());
    }

    /** The same, telling the server's new public key. */
    public Work withServerKey(@Nullable String newServerKey) {
        return new Work(jobs, checks, mirrors, windows, people, personChecks, newServerKey, quietHours, answers, menu);
    }

    /** The same for a device that serves people, too. */
    public Work withPeople(List<Person> who, List<Check> profileChecks) {
        return new Work(jobs, checks, mirrors, windows, who, profileChecks, serverKey, quietHours, answers, menu);
    }

    /** The same with what there is to know of notices. */
    public Work withNotices(@Nullable QuietHours quiet, List<Answered> said) {
        return new Work(jobs, checks, mirrors, windows, people, personChecks, serverKey, quiet, said, menu);
    }

    /** The same with what stands in the device's menu. */
    public Work withMenu(List<Entry> entries) {
        return new Work(jobs, checks, mirrors, windows, people, personChecks, serverKey, quietHours, answers, entries);
    }

    /**
     * An entry of the device's own menu, which opens the shelf at a title.
     *
     * @param person the id of the only one whose menu it stands in; null for everybody's
     */
    public record Entry(String title, String name, @Nullable String person) {
    }

    /**
     * What somebody has said to a notice of this device.
     *
     * @param notice as the device has numbered it
     * @param until when it may be asked again, of {@code later}; null for the others
     * @param person the id of who said so
     */
    public record Answered(String notice, NoticeAnswer answer, @Nullable Instant until, String person) {
    }

    /** Somebody who uses the device. @param account by which they sign in */
    public record Person(String id, String account, String name) {
    }

    /**
     * A caching web server that has content, or fetches it on asking: {@code GET ADDRESS/content/SHA256}, in ranges.
     *
     * @param address without a slash at the end
     */
    public record Mirror(String id, String address) {
    }

    /** How to see a title: it is there when one of the releases is seen. @param releases the highest version first */
    public record Check(String title, List<Seen> releases) {

        public Check {
            releases = List.copyOf(releases);
        }

        /** One that is seen by the name in the device's own list of installed software. */
        public static Check inventory(String title, String name) {
            return new Check(title, List.of(new Seen("", false, List.of(new Look(PresenceKind.INVENTORY, name, "")))));
        }
    }

    /**
     * How to see one release.
     *
     * @param version which it is, where nothing looked at tells a version; empty for unknown
     * @param any whether one of the looks is enough; else all have to hold
     * @param looks at least one
     */
    public record Seen(String version, boolean any, List<Look> looks) {

        public Seen {
            looks = List.copyOf(looks);
        }
    }

    /**
     * One thing to look at.
     *
     * @param subject the name, code, path or script
     * @param version the lowest that will do; empty for any
     * @param order by whose rules that is compared; null for as everywhere
     */
    public record Look(PresenceKind kind, String subject, String version, @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable VersionOrder order) {

        /** One whose version is compared as everywhere. */
        public Look(PresenceKind kind, String subject, String version) {
            this(kind, subject, version, null);
        }

        /** Whether this version will do. */
        public boolean isMetBy(String there) {
            return version.isEmpty() || !there.isEmpty() && (order == null ? Version.of(there).compareTo(Version.of(version)) : order.compare(there, version)) >= 0;
        }
    }
}
