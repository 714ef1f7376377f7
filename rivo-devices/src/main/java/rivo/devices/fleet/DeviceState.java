package rivo.devices.fleet;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
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
 * @param profiles the same for each person who has signed in, by account
 * @param rests what it has done for people of what is installed on the device, as {@link DeviceJobs} names it
 * @param attempts how often it has tried each job
 * @param notices what it has told and asked
 * @param unheard what it has not been able to report
 */
record DeviceState(String name, String privateKey, @Nullable String id, @Nullable String serverKey, long reports,
        Map<String, String> software, Map<String, Map<String, String>> profiles, Set<String> rests, Map<String, Integer> attempts, NoticeBook notices,
        Unheard unheard) {

    DeviceState {
        privateKey = privateKey == null ? AgreementKey.random().secretText() : privateKey;
        software = Map.copyOf(software);
        profiles = profiles == null ? Map.of() : Map.copyOf(profiles);
        rests = rests == null ? Set.of() : Set.copyOf(rests);
        attempts = Map.copyOf(attempts);
        notices = notices == null ? NoticeBook.EMPTY : notices;
        unheard = unheard == null ? Unheard.NOTHING : unheard;
    }

    /** One that nobody knows yet. */
    static DeviceState fresh(String name, Map<String, String> software, Map<String, Map<String, String>> profiles) {
        return new DeviceState(name, AgreementKey.random().secretText(), null, null, 0, software, profiles, Set.of(), Map.of(), NoticeBook.EMPTY, Unheard.NOTHING);
    }

    boolean isEnrolled() {
        return id != null && serverKey != null;
    }

    DeviceState enrolled(String newId, String newServerKey) {
        return new DeviceState(name, privateKey, newId, newServerKey, reports, software, profiles, rests, attempts, notices, unheard);
    }

    DeviceState withReports(long last) {
        return new DeviceState(name, privateKey, id, serverKey, last, software, profiles, rests, attempts, notices, unheard);
    }

    DeviceState withSoftware(Map<String, String> newSoftware) {
        return new DeviceState(name, privateKey, id, serverKey, reports, newSoftware, profiles, rests, attempts, notices, unheard);
    }

    DeviceState withProfile(String account, Map<String, String> newSoftware) {
        Map<String, Map<String, String>> next = new HashMap<>(profiles);
        next.put(account, Map.copyOf(newSoftware));
        return new DeviceState(name, privateKey, id, serverKey, reports, software, next, rests, attempts, notices, unheard);
    }

    DeviceState withRests(Set<String> newRests) {
        return new DeviceState(name, privateKey, id, serverKey, reports, software, profiles, newRests, attempts, notices, unheard);
    }

    DeviceState withAttempts(Map<String, Integer> newAttempts) {
        return new DeviceState(name, privateKey, id, serverKey, reports, software, profiles, rests, newAttempts, notices, unheard);
    }

    DeviceState with(NoticeBook newNotices) {
        return new DeviceState(name, privateKey, id, serverKey, reports, software, profiles, rests, attempts, newNotices, unheard);
    }

    DeviceState with(Unheard newUnheard) {
        return new DeviceState(name, privateKey, id, serverKey, reports, software, profiles, rests, attempts, notices, newUnheard);
    }

    /** Never shows the private key. */
    @Override
    public String toString() {
        return name + " (" + (isEnrolled() ? id : "not enrolled") + ")";
    }
}
