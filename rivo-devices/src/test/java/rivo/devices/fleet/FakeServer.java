package rivo.devices.fleet;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.ToIntFunction;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.AnswerSignature;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.Signature;
import rivo.devices.protocol.Work;
import tools.jackson.databind.json.JsonMapper;

/** A server for one device that keeps to docs/device-protocol.md: keys, signatures both ways, times, numbers, ETag and 304. */
final class FakeServer implements AutoCloseable {

    static final String DEVICE = "d1";
    private static final JsonMapper JSON = new JsonMapper();

    /** What is answered; {@code etag} may be null. */
    record Said(int status, byte[] body, String etag) {
        static Said json(int status, Object body) {
            return new Said(status, JSON.writeValueAsBytes(body), null);
        }

        static Said problem(int status, String code) {
            return json(status, Map.of("code", code));
        }
    }

    /** Gives a part of content; null for none. */
    interface Contents {
        byte[] part(int from, int to) throws IOException;
    }

    final Queue<Report> reports = new ConcurrentLinkedQueue<>();
    final Queue<String> asked = new ConcurrentLinkedQueue<>();
    volatile Work work = Work.nothing();
    volatile Contents contents = (from, to) -> null;
    volatile boolean refusesEnrolment;
    volatile boolean refusesAnswers;
    /** The status with which a report is turned away; 0 to take it. */
    volatile ToIntFunction<Report> turnsAway = report -> 0;
    /** Somebody in between who changes what is answered, after it has been signed. */
    volatile boolean tampers;
    volatile boolean signs = true;
    volatile Duration clockAhead = Duration.ZERO;
    private final AgreementKey own = AgreementKey.random();
    private volatile AgreementKey newer;
    private final EnrolmentToken token = EnrolmentToken.random(own.publicKey());
    private final HttpServer http;
    private final ExecutorService threads = Executors.newFixedThreadPool(2);
    private volatile String device;
    private long last;

    FakeServer() throws IOException {
        http = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        http.setExecutor(threads);
        http.createContext("/", exchange -> {
            try (exchange) {
                answer(exchange);
            }
        });
        http.start();
    }

    URI url() {
        return URI.create("http://127.0.0.1:" + http.getAddress().getPort());
    }

    String token() {
        return token.text();
    }

    /** A device that has enrolled before. */
    DeviceState enrolled() {
        DeviceState fresh = DeviceState.fresh("d", Map.of(), Map.of());
        device = AgreementKey.of(fresh.privateKey()).publicKey();
        return fresh.enrolled(DEVICE, own.publicKey());
    }

    /** From now on the server has a new key, which devices are told of. */
    void rollKey() {
        newer = AgreementKey.random();
    }

    /** The tags of the keys that requests were signed with. */
    boolean wasAskedWithNewKey() {
        return newer != null && asked.stream().anyMatch(a -> a.endsWith("@" + MessageKey.tag(newer.publicKey())));
    }

    private void answer(HttpExchange exchange) throws IOException {
        byte[] body = exchange.getRequestBody().readAllBytes();
        String path = exchange.getRequestURI().getPath();
        Signature signature = Signature.parse(exchange.getRequestHeaders().getFirst("Signature-Input"),
                exchange.getRequestHeaders().getFirst("Signature"), body.length > 0).orElse(null);
        asked.add(path + " " + (signature == null ? "unsigned" : signature.keyId()));
        if (signature == null) {
            send(exchange, Said.problem(401, "unsigned"), null, null);
        } else if (path.equals("/device/v2/enrolments")) {
            enrol(exchange, body, signature);
        } else {
            MessageKey key = key(signature);
            String digest = body.length > 0 ? Signature.digest(body) : null;
            if (key == null || !signature.isBy(key, exchange.getRequestMethod(), path, digest)) {
                send(exchange, Said.problem(401, "bad-signature"), null, null);
            } else {
                boolean old = Duration.between(signature.created(), now()).abs().compareTo(Duration.ofSeconds(60)) > 0;
                send(exchange, old ? Said.problem(401, "old-signature") : said(exchange, path, body, signature), key, signature);
            }
        }
    }

    private Instant now() {
        return Instant.now().plus(clockAhead);
    }

    private MessageKey key(Signature signature) {
        AgreementKey next = newer;
        boolean isNew = next != null && signature.keyId().serverTag().equals(MessageKey.tag(next.publicKey()));
        return device == null ? null : MessageKey.ofServer(isNew ? next : own, device);
    }

    private void enrol(HttpExchange exchange, byte[] body, Signature signature) throws IOException {
        String publicKey = JSON.readValue(body, Enrolment.class).publicKey();
        MessageKey asks = MessageKey.ofEnrolment(own, publicKey, signature.keyId().name());
        boolean proven = signature.keyId().name().equals(token.key().publicKey())
                && signature.isBy(asks, "POST", "/device/v2/enrolments", Signature.digest(body));
        if (refusesEnrolment || !proven) {
            send(exchange, Said.problem(401, "bad-token"), null, null);
        } else {
            device = publicKey;
            send(exchange, Said.json(201, new Enrolled(DEVICE, "QB-LAB-014")), MessageKey.ofServer(own, publicKey), signature);
        }
    }

    private synchronized Said said(HttpExchange exchange, String path, byte[] body, Signature signature) throws IOException {
        if (path.equals("/device/v2/work")) {
            boolean behind = newer != null && !signature.keyId().serverTag().equals(MessageKey.tag(newer.publicKey()));
            byte[] now = JSON.writeValueAsBytes(behind ? work.withServerKey(newer.publicKey()) : work);
            String etag = "\"" + Integer.toHexString(java.util.Arrays.hashCode(now)) + "\"";
            boolean held = etag.equals(exchange.getRequestHeaders().getFirst("If-None-Match"));
            return held ? new Said(304, new byte[0], etag) : new Said(200, now, etag);
        }
        if (path.equals("/device/v2/reports")) {
            Report report = JSON.readValue(body, Report.class);
            int status = turnsAway.applyAsInt(report);
            if (status != 0) {
                return Said.problem(status, "turned-away");
            }
            boolean taken = report.number() > last;
            if (taken) {
                last = report.number();
                reports.add(report);
            }
            List<ReportAnswer.RefusedAnswer> refused = report.notices() == null ? List.of() : report.notices().stream()
                    .filter(told -> refusesAnswers && told.answer() != null)
                    .map(told -> new ReportAnswer.RefusedAnswer(told.notice(), "put-off-too-often", "It has been put off often enough.")).toList();
            return Said.json(200, new ReportAnswer(taken, last, refused));
        }
        if (path.equals("/device/v2/links")) {
            return Said.json(200, Map.of("path", "/shelf#in=" + JSON.readTree(body).path("account").asString(), "validSeconds", 120));
        }
        String[] range = exchange.getRequestHeaders().getFirst("Range").substring("bytes=".length()).split("-");
        asked.add("server " + range[0]);
        byte[] part = contents.part(Integer.parseInt(range[0]), Integer.parseInt(range[1]));
        return part == null ? Said.problem(404, "no-content") : new Said(206, part, "\"content\"");
    }

    private void send(HttpExchange exchange, Said said, MessageKey key, Signature asked) throws IOException {
        byte[] body = said.body();
        var headers = exchange.getResponseHeaders();
        if (said.etag() != null) {
            headers.set("ETag", said.etag());
        }
        if (key != null && signs) {
            String digest = body.length == 0 || said.status() == 206 ? null : Signature.digest(body);
            AnswerSignature.Answer answer = new AnswerSignature.Answer(said.status(), said.etag(), null, digest, asked.value());
            AnswerSignature signature = AnswerSignature.sign(key, new KeyId(DEVICE, asked.keyId().serverTag()), now(), answer);
            headers.set("Signature-Input", signature.inputHeader(answer));
            headers.set("Signature", signature.valueHeader());
            if (digest != null) {
                headers.set("Content-Digest", digest);
            }
        }
        if (tampers && body.length > 0) {
            body = new String(body, StandardCharsets.ISO_8859_1).replace("\"x\"", "\"y\"").getBytes(StandardCharsets.ISO_8859_1);
        }
        exchange.sendResponseHeaders(said.status(), body.length == 0 ? -1 : body.length);
        if (body.length > 0) {
            exchange.getResponseBody().write(body);
        }
    }

    @Override
    public void close() {
        http.stop(0);
        threads.shutdownNow();
    }
}
