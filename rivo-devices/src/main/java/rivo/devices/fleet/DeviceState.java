package rivo.devices.fleet;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;

/**
 * What a simulated device keeps over a restart.
 *
 * @param privateKey its own key, chosen before it first asked; a new one where none has been kept
 * @param id its id; null before it has enrolled, as is the server's key
 * @param serverKey the public key of the server
 * @param reports the number of its last report
 * @param software installed, by inventory name, with its version
 * @param attempts how often it has tried each job
 */
record DeviceState(String name, String privateKey, @Nullable String id, @Nullable String serverKey, long reports,
        Map<String, String> software, Map<String, Integer> attempts) {

    DeviceState {
        privateKey = privateKey == null ? AgreementKey.random().secretText() : privateKey;
        software = Map.copyOf(software);
        attempts = Map.copyOf(attempts);
    }

    /** One that nobody knows yet. */
    static DeviceState fresh(String name, Map<String, String> software) {
        return new DeviceState(name, AgreementKey.random().secretText(), null, null, 0, software, Map.of());
    }

    boolean isEnrolled() {
        return id != null && serverKey != null;
    }

    DeviceState enrolled(String newId, String newServerKey) {
        return new DeviceState(name, privateKey, newId, newServerKey, reports, software, attempts);
    }

    DeviceState withReports(long last) {
        return new DeviceState(name, privateKey, id, serverKey, last, software, attempts);
    }

    DeviceState withSoftware(Map<String, String> newSoftware, Map<String, Integer> newAttempts) {
        return new DeviceState(name, privateKey, id, serverKey, reports, newSoftware, newAttempts);
    }

    /** Never shows the private key. */
    @Override
    public String toString() {
        return name + " (" + (isEnrolled() ? id : "not enrolled") + ")";
    }
}
