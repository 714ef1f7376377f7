package rivo.core.estate;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A computer that can receive software.
 *
 * @param id the directory's stable id for it
 * @param name empty when there is none
 * @param ou the id of its OU; null when it stands outside every OU, which is below the root only
 * @param people the ids of its primary users
 * @param facts what it reported of itself, by the names of the rule language; empty before its first report
 * @param software what it reported as installed
 * @param present the catalogue's titles found on it, once for each unit
 */
public record Device(String id, String name, @Nullable String ou, List<String> people, Facts facts,
        List<Installed> software, List<Present> present) {

    public Device {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        Objects.requireNonNull(facts);
        people = List.copyOf(people);
        software = List.copyOf(software);
        present = List.copyOf(present);
    }

    /** A device that has not reported anything yet. */
    public static Device of(String id, String name, @Nullable String ou, List<String> people) {
        return new Device(id, name, ou, people, Facts.NONE, List.of(), List.of());
    }

    /** The title of scope device as it is found on this device, or null. */
    public @Nullable Present present(String title) {
        return present(title, null);
    }

    /** The title as it is found on this device, in this person's profile for a title of scope user, or null. */
    public @Nullable Present present(String title, @Nullable String user) {
        for (Present entry : present) {
            if (entry.title().equals(title) && Objects.equals(entry.user(), user)) {
                return entry;
            }
        }
        return null;
    }

    public Device withReport(Facts newFacts, List<Installed> newSoftware, List<Present> newPresent) {
        return new Device(id, name, ou, people, newFacts, newSoftware, newPresent);
    }

    public Device withOu(@Nullable String newOu) {
        return new Device(id, name, newOu, people, facts, software, present);
    }

    public Device withPeople(List<String> newPeople) {
        return new Device(id, name, ou, newPeople, facts, software, present);
    }
}
