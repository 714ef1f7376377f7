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
     */
    public record Entry(String name, String token, boolean lively, Map<String, String> facts,
            Map<String, String> software) {

        public Entry {
            facts = Map.copyOf(facts);
            software = Map.copyOf(software);
        }
    }
}
