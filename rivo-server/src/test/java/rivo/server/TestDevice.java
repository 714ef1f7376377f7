package rivo.server;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.AnswerSignature;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Signature;
import rivo.server.TestClient.Answer;
import rivo.server.fleet.Enrolments;
import tools.jackson.databind.json.JsonMapper;

/** A device as somebody else would write it, by docs/device-protocol.md. */
public final class TestDevice {

    private static final JsonMapper JSON = new JsonMapper();
    private static final HttpClient HTTP = HttpClient.newHttpClient();

    private final URI url;
    public final String id;
    public final AgreementKey key;
    public final String token;
    /** The server's public key, as it was told. */
    public String serverKey;
    /** How far its clock is from the right time. */
    public Duration clock = Duration.ZERO;

    private TestDevice(URI url, String id, String token, AgreementKey key) {
        this.url = url;
        this.id = id;
        this.token = token;
        this.key = key;
        this.serverKey = EnrolmentToken.parse(token).orElseThrow().serverPublicKey();
    }

    /** One that has a token and has not used it. */
    public static TestDevice withToken(TestServer server, String name) {
        String id = server.device(name);
        return withToken(server, id, Duration.ofHours(1));
    }

    public static TestDevice withToken(TestServer server, String id, Duration valid) {
        String token = server.bean(Enrolments.class).newTokens("test", List.of(id), valid).get(id).token();
        return withToken(server.url(), id, token);
    }

    public static TestDevice withToken(URI url, String id, String token) {
        return new TestDevice(url, id, token, AgreementKey.random());
    }

    public static TestDevice enrolled(TestServer server, String name) {
        TestDevice device = withToken(server, name);
        Answer answer = device.enrol();
        if (answer.status() != 201) {
            throw new IllegalStateException(answer.toString());
        }
        return device;
    }

    /** The same with another private key. */
    public TestDevice withKey(AgreementKey other) {
        return new TestDevice(url, id, token, other);
    }

    /** The same after the server has started anew. */
    public TestDevice at(URI other) {
        TestDevice same = new TestDevice(other, id, token, key);
        same.serverKey = serverKey;
        return same;
    }

    public Answer enrol() {
        EnrolmentToken told = EnrolmentToken.parse(token).orElseThrow();
        return enrol(key.publicKey(), MessageKey.ofEnrolment(key, told));
    }

    public Answer enrol(@Nullable String publicKey, MessageKey signer) {
        EnrolmentToken told = EnrolmentToken.parse(token).orElseThrow();
        byte[] body = JSON.writeValueAsBytes(publicKey == null ? Map.of() : Map.of("publicKey", publicKey));
        return send("POST", "/device/v2/enrolments", body, Map.of(), signer,
                new KeyId(told.key().publicKey(), MessageKey.tag(told.serverPublicKey())));
    }

    public MessageKey messageKey() {
        return MessageKey.ofDevice(key, serverKey);
    }

    public KeyId keyId() {
        return new KeyId(id, MessageKey.tag(serverKey));
    }

    public Answer ask(String method, String path, byte @Nullable [] body, Map<String, String> headers) {
        return send(method, path, body, headers, messageKey(), keyId());
    }

    public Answer work() {
        return ask("GET", "/device/v2/work", null, Map.of());
    }

    public Answer report(String json) {
        return ask("POST", "/device/v2/reports", json.getBytes(StandardCharsets.UTF_8), Map.of());
    }

    /** A request, signed for this path, that goes to another address. */
    public HttpRequest.Builder signed(String address, String method, String path, byte @Nullable [] body, MessageKey signer,
            KeyId as) {
        String digest = body == null ? null : Signature.digest(body);
        Signature signature = Signature.sign(signer, as, Instant.now().plus(clock), method, path, digest);
        HttpRequest.Builder request = HttpRequest.newBuilder(url.resolve(address))
                .header("Signature-Input", signature.inputHeader(body != null)).header("Signature", signature.valueHeader())
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        return digest == null ? request : request.header("Content-Digest", digest).header("Content-Type", "application/json");
    }

    private Answer send(String method, String path, byte @Nullable [] body, Map<String, String> headers, MessageKey signer, KeyId as) {
        HttpRequest.Builder request = signed(path, method, path, body, signer, as);
        headers.forEach(request::header);
        return send(request.build());
    }

    public Answer send(HttpRequest request) {
        return TestClient.exchange(HTTP, request);
    }

    /** Whether an answer is signed for this device and the request with this signature header. */
    public boolean isSigned(Answer answer, String requestSignature) {
        boolean hasDigest = !answer.header("Content-Digest").isEmpty();
        if (hasDigest && !Signature.digest(answer.bytes()).equals(answer.header("Content-Digest"))) {
            return false;
        }
        AnswerSignature.Answer said = new AnswerSignature.Answer(answer.status(), orNull(answer.header("ETag")),
                orNull(answer.header("Cache-Control")), hasDigest ? answer.header("Content-Digest") : null,
                requestSignature.replaceAll("^rivo=:|:$", ""));
        return AnswerSignature.parse(answer.header("Signature-Input"), answer.header("Signature"), said)
                .filter(s -> s.isBy(messageKey(), said)).isPresent();
    }

    private static @Nullable String orNull(String text) {
        return text.isEmpty() ? null : text;
    }
}
