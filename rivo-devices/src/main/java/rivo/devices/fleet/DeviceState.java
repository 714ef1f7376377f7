package rivo.devices.fleet;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a simulated device keeps over a restart.
 *
 * @param nonce what it enrolled with, chosen before the first try
 * @param id its id; null before it has enrolled, as is the key
 * @param reports the number of its last report
 * @param software installed, by inventory name, with its version
 * @param attempts how often it has tried each job
 */
record DeviceState(String name, String nonce, @Nullable String id, @Nullable String key, long reports,
        Map<String, String> software, Map<String, Integer> attempts) {

    DeviceState {
        software = Map.copyOf(software);
        attempts = Map.copyOf(attempts);
    }

    boolean isEnrolled() {
        return key != null;
    }
}
