package rivo.core.estate;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A computer that can receive software.
 *
 * @param id the directory's stable id for it
 * @param ou the id of its OU; null when it stands outside every OU, which is below the root only
 * @param people the ids of its primary users
 * @param facts what it reported of itself, by the names of the rule language; empty before its first report
 * @param software what it reported as installed
 * @param present the catalogue's titles found on it, each once
 */
public record Device(String id, String name, @Nullable String ou, List<String> people, Map<String, String> facts,
        List<Installed> software, List<Present> present) {

    public Device {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        people = List.copyOf(people);
        facts = Map.copyOf(facts);
        software = List.copyOf(software);
        present = List.copyOf(present);
    }

    /** The title as it is found on this device, or null. */
    public @Nullable Present present(String title) {
        for (Present entry : present) {
            if (entry.title().equals(title)) {
                return entry;
            }
        }
        return null;
    }

    public Device withReport(Map<String, String> newFacts, List<Installed> newSoftware, List<Present> newPresent) {
        return new Device(id, name, ou, people, newFacts, newSoftware, newPresent);
    }
}
