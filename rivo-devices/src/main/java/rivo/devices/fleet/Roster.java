package rivo.devices.fleet;

import java.util.List;
import java.util.Map;

/** The devices that shall exist. */
public record Roster(List<Entry> entries) {

    public Roster {
        entries = List.copyOf(entries);
    }

    /**
     * One device.
     *
     * @param token the one-time token to enrol with; empty once it is enrolled
     * @param lively whether it calls in every few seconds
     * @param facts what it reports of itself
     * @param software what is installed before Rivo comes, by inventory name, with its version
     * @param people the accounts of those who sign in here
     * @param profiles what each of them has in their profile before Rivo comes, by account; like {@code software}
     * @param triedOut whether somebody tries out what its first person sees: they stay signed in, what it asks is left to their
     *     shelf, and nothing goes wrong with its jobs by chance
     */
    public record Entry(String name, String token, boolean lively, Map<String, String> facts, Map<String, String> software,
            List<String> people, Map<String, Map<String, String>> profiles, boolean triedOut) {

        public Entry {
            facts = Map.copyOf(facts);
            software = Map.copyOf(software);
            people = List.copyOf(people);
            profiles = Map.copyOf(profiles);
        }

        /** One at which nobody signs in. */
        public Entry(String name, String token, boolean lively, Map<String, String> facts, Map<String, String> software) {
            this(name, token, lively, facts, software, List.of(), Map.of(), false);
        }
    }
}
