package rivo.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Signature;

/** A device of the load driver: it signs as the protocol says, and remembers what it was told last. Of one thread at a time. */
final class LoadDevice {

    private static final String WORK = "/device/v2/work";
    private static final String REPORTS = "/device/v2/reports";

    private final KeyId keyId;
    private final MessageKey key;
    private @Nullable String etag;
    private int told;
    private long number;

    private LoadDevice(KeyId keyId, MessageKey key) {
        this.keyId = keyId;
        this.key = key;
    }

    /** @throws IOException when the server does not take the token */
    static LoadDevice enrolled(RawConnection connection, String id, String token) throws IOException {
        EnrolmentToken parsed = EnrolmentToken.parse(token).orElseThrow();
        AgreementKey own = AgreementKey.random();
        String tag = MessageKey.tag(parsed.serverPublicKey());
        byte[] body = ("{\"publicKey\":\"" + own.publicKey() + "\"}").getBytes(StandardCharsets.UTF_8);
        String path = "/device/v2/enrolments";
        RawConnection.Answer answer = connection.ask("POST", path, signed(MessageKey.ofEnrolment(own, parsed),
                new KeyId(parsed.key().publicKey(), tag), "POST", path, body), body);
        if (answer.status() != 201) {
            throw new IOException("a device could not enrol: " + answer.status() + " " + new String(answer.body(), StandardCharsets.UTF_8));
        }
        return new LoadDevice(new KeyId(id, tag), MessageKey.ofDevice(own, parsed.serverPublicKey()));
    }

    private static String signed(MessageKey key, KeyId keyId, String method, String path, byte @Nullable [] body) {
        String digest = body == null ? null : Signature.digest(body);
        Signature signature = Signature.sign(key, keyId, Instant.now(), method, path, digest);
        return "Signature-Input: " + signature.inputHeader(body != null) + "\r\nSignature: " + signature.valueHeader() + "\r\n"
                + (digest == null ? "" : "Content-Digest: " + digest + "\r\n");
    }

    /** @param again whether what it was told last shall be told again */
    int callIn(RawConnection connection, boolean again) throws IOException {
        String held = etag;
        RawConnection.Answer answer = connection.ask("GET", WORK, signed(key, keyId, "GET", WORK, null) + (held == null || again ? ""
                : "If-None-Match: " + held + "\r\n"), null);
        // Only what it was told: the bare endpoint, which the same devices ask by turns, tells nothing and has an entity tag of its own.
        if (answer.status() == 200) {
            etag = answer.etag();
            told = answer.body().length;
        }
        return answer.status();
    }

    /** How many bytes its work had when it was last told; 0 before. */
    int told() {
        return told;
    }

    /** One fact that is another each time, as a device's are. */
    int report(RawConnection connection) throws IOException {
        byte[] body = ("{\"number\":" + ++number + ",\"progress\":[{\"title\":\"t0\",\"action\":\"install\",\"version\":\"1.0\",\"state\":\"running\","
                + "\"step\":1,\"steps\":4,\"percent\":" + number % 100 + ",\"message\":\"fetching\",\"at\":\"" + Instant.now() + "\"}]}")
                .getBytes(StandardCharsets.UTF_8);
        return connection.ask("POST", REPORTS, signed(key, keyId, "POST", REPORTS, body), body).status();
    }
}
