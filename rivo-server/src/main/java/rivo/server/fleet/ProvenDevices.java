package rivo.server.fleet;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.Caller.CallingDevice;
import rivo.server.web.ApiException;

/** Which device a request is from, by its signature. Safe for any number of threads. */
@Component
class ProvenDevices {

    private final Enrolments enrolments;
    private final CurrentSnapshot current;
    private final Clock clock;

    ProvenDevices(Enrolments enrolments, CurrentSnapshot current, Clock clock) {
        this.enrolments = enrolments;
        this.current = current;
        this.clock = clock;
    }

    /**
     * From here on the answer is signed for whoever asked, also when the request is refused for being too old.
     *
     * @throws ApiException when it is not signed, not by the key of an enrolled device, or too long ago
     */
    CallingDevice of(HttpServletRequest http) {
        SignedRequest request = signed(http);
        Snapshot snapshot = current.now();
        Enrolments.Signer signer = enrolments.signer(snapshot, request.keyId());
        if (signer == null || !request.isBy(signer.key())) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "bad-signature",
                    "The signature is not by the key of an enrolled device. Enrol with a new token.");
        }
        DeviceAnswer.signFor(http, request.keyId(), signer.key(), request);
        request.checkTime(clock);
        return new CallingDevice(request.keyId().name(), enrolments.signedWith(snapshot, signer.known(), request.keyId()));
    }

    /** @throws ApiException when it is not signed */
    static SignedRequest signed(HttpServletRequest http) {
        DeviceRequest read = DeviceRequest.of(http);
        return SignedRequest.of(http, read.length(), read.length() == 0 ? null : read.digest());
    }
}
