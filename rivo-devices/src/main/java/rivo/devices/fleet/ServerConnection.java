package rivo.devices.fleet;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.AnswerSignature;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.ShelfAct;
import rivo.devices.protocol.ShelfLink;
import rivo.devices.protocol.Signature;
import rivo.devices.protocol.Work;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The device protocol, seen from a device. Shared by all simulated devices, which have one computer's clock: what the server's
 * answers say of the time is remembered for all. Safe for any number of threads.
 *
 * <p><b>Nothing is believed unsigned.</b> An answer that is not signed for the very request counts as none. The server signs
 * even the refusal of a request that is too old, so the time it tells can be relied on.
 */
final class ServerConnection {

    private static final Duration PATIENCE = Duration.ofSeconds(20);
    /** Clocks that are no farther apart than this count as the same: answers tell the time in whole seconds. */
    private static final Duration EXACT = Duration.ofSeconds(2);
    private static final String JSON = "application/json";
    private static final String BASE = "/device/v2/";

    /** An answer that is not a success. */
    static final class RefusedByServer extends IOException {
        private final int status;
        private final boolean signed;

        RefusedByServer(int status, boolean signed, String body) {
            super("the server answered " + status + (signed ? "" : ", unsigned") + ": " + body);
            this.status = status;
            this.signed = signed;
        }

        int status() {
            return status;
        }

        /** Whether the very same is never taken: what was asked is wrong, and not who asks, or when. */
        boolean isForGood() {
            return signed && (status == 400 || status == 413 || status == 422);
        }

        /** Whether it is certain that the server itself said so. */
        boolean isSigned() {
            return signed;
        }
    }

    /** Whoever signs, with what. */
    private record Signer(KeyId keyId, MessageKey key) {
    }

    private record KeyPair(String privateKey, String serverKey) {
    }

    private static final int MOST_SHARED = 10_000;

    private final URI server;
    private final JsonMapper json = new JsonMapper();
    private final Map<Object, Object> shared = new ConcurrentHashMap<>();
    private final Map<KeyPair, MessageKey> keys = new ConcurrentHashMap<>();
    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(PATIENCE).build();
    /** How far the server's clock is ahead of this computer's. */
    private volatile Duration clockAhead = Duration.ZERO;

    ServerConnection(URI server) {
        this.server = server;
    }

    /** @throws RefusedByServer when the server does not take the token; IOException when the answer is not the server's */
    Enrolled enrol(EnrolmentToken token, AgreementKey device) throws IOException, InterruptedException {
        String tag = MessageKey.tag(token.serverPublicKey());
        Signer asks = new Signer(new KeyId(token.key().publicKey(), tag), MessageKey.ofEnrolment(device, token));
        MessageKey answers = MessageKey.ofDevice(device, token.serverPublicKey());
        return json.readValue(send(asks, answers, "POST", "enrolments",
                json.writeValueAsBytes(new Enrolment(device.publicKey())), Map.of(), 201).body(), Enrolled.class);
    }

    /** Calls in: 200 with work, or 304 when there is nothing new. */
    HttpResponse<byte[]> callIn(DeviceState device, @Nullable String etag, Duration next)
            throws IOException, InterruptedException {
        String seconds = Long.toString(next.toSeconds());
        HttpResponse<byte[]> response = signed(device, "GET", "work", null, etag == null ? Map.of("Rivo-Next-Call-In", seconds)
                : Map.of("Rivo-Next-Call-In", seconds, "If-None-Match", etag), 200, 304);
        if (response.statusCode() == 304 && !Objects.equals(etag, header(response.headers(), "ETag"))) {
            throw new IOException("the server says that nothing is new, of something else");
        }
        return response;
    }

    /** A part of a content from the server itself; both ends inclusive. */
    byte[] part(DeviceState device, String sha256, long from, long to) throws IOException, InterruptedException {
        return signed(device, "GET", "content/" + sha256, null, Map.of("Range", range(from, to)), 206).body();
    }

    /** A part of a content from a mirror; both ends inclusive. Nothing is signed: who knows the hash may have it. */
    byte[] part(String mirror, String sha256, long from, long to) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(URI.create(mirror + "/content/" + sha256)).timeout(PATIENCE)
                .header("Range", range(from, to)).GET().build();
        HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        if (response.statusCode() != 206) {
            throw new IOException("it answered " + response.statusCode());
        }
        return response.body();
    }

    private static String range(long from, long to) {
        return "bytes=" + from + "-" + to;
    }

    ReportAnswer report(DeviceState device, Report report) throws IOException, InterruptedException {
        return json.readValue(signed(device, "POST", "reports", json.writeValueAsBytes(report), Map.of(), 200).body(),
                ReportAnswer.class);
    }

    /** A link by which whoever is signed in with this account comes to their shelf of the device. @param title at which it opens; null for the whole */
    ShelfLink shelfLink(DeviceState device, String account, @Nullable String title) throws IOException, InterruptedException {
        Map<String, String> asked = title == null ? Map.of("account", account) : Map.of("account", account, "title", title);
        return json.readValue(signed(device, "POST", "links", json.writeValueAsBytes(asked), Map.of(), 200).body(), ShelfLink.class);
    }

    /** The shelf of whoever is signed in with this account, as the server's API has it. */
    JsonNode shelf(DeviceState device, String account) throws IOException, InterruptedException {
        return json.readTree(signed(device, "POST", "shelf", json.writeValueAsBytes(Map.of("account", account)), Map.of(), 200).body());
    }

    void act(DeviceState device, ShelfAct act) throws IOException, InterruptedException {
        signed(device, "POST", "requests", json.writeValueAsBytes(act), Map.of(), 204);
    }

    /** What many devices are told alike is held once for all: thousands of them live in one process here. */
    Work work(byte[] body) {
        Work told = json.readValue(body, Work.class);
        return new Work(told.jobs().stream().map(this::shared).toList(), shared(told.checks()), shared(told.mirrors()),
                shared(told.windows()), told.people(), told.personChecks() == null ? null : shared(told.personChecks()), told.serverKey(),
                told.quietHours(), told.answers(), told.menu());
    }

    @SuppressWarnings("unchecked")
    private <T> T shared(T part) {
        if (shared.size() > MOST_SHARED) {
            shared.clear();
        }
        return (T) Objects.requireNonNull(shared.computeIfAbsent(part, p -> p));
    }

    private HttpResponse<byte[]> signed(DeviceState device, String method, String path, byte @Nullable [] body,
            Map<String, String> headers, int... expected) throws IOException, InterruptedException {
        String serverKey = Objects.requireNonNull(device.serverKey());
        MessageKey key = keys.computeIfAbsent(new KeyPair(device.privateKey(), serverKey),
                pair -> MessageKey.ofDevice(AgreementKey.of(pair.privateKey()), pair.serverKey()));
        Signer signer = new Signer(new KeyId(Objects.requireNonNull(device.id()), MessageKey.tag(serverKey)), key);
        return send(signer, key, method, path, body, headers, expected);
    }

    private HttpResponse<byte[]> send(Signer asks, MessageKey answers, String method, String path, byte @Nullable [] body,
            Map<String, String> headers, int... expected) throws IOException, InterruptedException {
        boolean again = true;
        while (true) {
            String digest = body == null ? null : Signature.digest(body);
            Signature signature = Signature.sign(asks.key(), asks.keyId(), Instant.now().plus(clockAhead), method, BASE + path, digest);
            HttpResponse<byte[]> response = http.send(request(signature, method, path, body, digest, headers),
                    HttpResponse.BodyHandlers.ofByteArray());
            Instant signedAt = signedAt(response, answers, signature);
            if (signedAt != null) {
                Duration ahead = Duration.between(Instant.now(), signedAt);
                clockAhead = ahead.abs().compareTo(EXACT) > 0 ? ahead : Duration.ZERO;
            }
            if (signedAt == null || response.statusCode() != 401 || !again) {
                return expected(response, signedAt != null, expected);
            }
            // Signed, so the key is right and only the time was not: once more by the server's clock.
            again = false;
        }
    }

    private HttpRequest request(Signature signature, String method, String path, byte @Nullable [] body, @Nullable String digest,
            Map<String, String> headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(server.resolve(BASE + path)).timeout(PATIENCE)
                .header("Signature-Input", signature.inputHeader(body != null)).header("Signature", signature.valueHeader())
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        return digest == null ? request.build() : request.header("Content-Digest", digest).header("Content-Type", JSON).build();
    }

    /** When the server signed the answer; null when it did not, or when the answer is not what was signed. */
    private static @Nullable Instant signedAt(HttpResponse<byte[]> response, MessageKey key, Signature request) {
        HttpHeaders headers = response.headers();
        String digest = header(headers, "Content-Digest");
        // Content is known by its hash, which is part of the work; anything else that is said has a digest.
        boolean content = response.statusCode() == 206;
        if (digest == null ? response.body().length > 0 && !content : !digest.equals(Signature.digest(response.body()))) {
            return null;
        }
        AnswerSignature.Answer answer = new AnswerSignature.Answer(response.statusCode(), header(headers, "ETag"),
                header(headers, "Cache-Control"), digest, request.value());
        return AnswerSignature.parse(header(headers, "Signature-Input"), header(headers, "Signature"), answer)
                .filter(signature -> signature.isBy(key, answer)).map(AnswerSignature::created).orElse(null);
    }

    private static @Nullable String header(HttpHeaders headers, String name) {
        return headers.firstValue(name).orElse(null);
    }

    private static HttpResponse<byte[]> expected(HttpResponse<byte[]> response, boolean signed, int... expected)
            throws IOException {
        for (int status : expected) {
            if (response.statusCode() == status && signed) {
                return response;
            }
        }
        throw new RefusedByServer(response.statusCode(), signed, new String(response.body(),
                java.nio.charset.StandardCharsets.UTF_8));
    }
}
