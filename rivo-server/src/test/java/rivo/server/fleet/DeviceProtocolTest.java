package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.Signature;
import rivo.server.TestServer.Answer;
import rivo.server.TestServer;
import rivo.server.Titles;
import rivo.server.change.DraftEdit;
import rivo.server.change.Drafts;
import rivo.server.change.Publishing;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The device protocol as somebody else's device would speak it. */
class DeviceProtocolTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final String NONCE = "0123456789abcdef";

    @TempDir
    private static Path data;
    private static TestServer server;
    private static int next = 1;

    /** A device of its own for each test. */
    private String id;
    private byte[] key;
    private String token;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        Titles.add(server);
        server.bean(Drafts.class).put("test", DraftEdit.title("siltscope", server.ou("Laboratories"), "required", false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @BeforeEach
    void enrol() {
        id = server.device(String.format("QB-LAB-%03d", next++ % 16 + 1));
        token = server.bean(Enrolments.class).newTokens("test", List.of(id), Duration.ofHours(1)).get(id).token();
        Answer answer = enrol(token, NONCE);
        assertThat(answer.status()).isEqualTo(201);
        key = Base64.getDecoder().decode(answer.body().path("key").asString());
    }

    private static Answer enrol(String token, String nonce) {
        return server.send(HttpRequest.newBuilder(server.url().resolve("/device/v1/enrolments")), "POST",
                Map.of("token", token, "nonce", nonce));
    }

    private Answer signed(String method, String path, byte @Nullable [] body, Map<String, String> headers) {
        String digest = body == null ? null : Signature.digest(body);
        Signature signature = Signature.sign(key, id, Instant.now(), method, path, digest);
        HttpRequest.Builder request = HttpRequest.newBuilder(server.url().resolve(path))
                .header("Signature-Input", signature.inputHeader(body != null))
                .header("Signature", signature.valueHeader());
        if (digest != null) {
            request.header("Content-Digest", digest);
        }
        headers.forEach(request::header);
        return server.send(request, method, body);
    }

    private Answer work(Map<String, String> headers) {
        return signed("GET", "/device/v1/devices/" + id + "/work", null, headers);
    }

    private Answer report(String json) {
        return signed("POST", "/device/v1/devices/" + id + "/reports", json.getBytes(StandardCharsets.UTF_8),
                Map.of());
    }

    private JsonNode page() {
        return server.ask("GET", "/api/devices/" + id, null).body();
    }

    @Test
    void aCallInBringsTheWorkAndNothingNewCostsA304() {
        Answer first = work(Map.of("Rivo-Next-Call-In", "30"));
        assertThat(first.status()).isEqualTo(200);
        assertThat(first.body().at("/jobs/0/title").asString()).isEqualTo("siltscope");
        assertThat(first.body().at("/jobs/0/version").asString()).isEqualTo("4.2.0");
        assertThat(first.body().at("/jobs/0/steps/0/kind").asString()).isEqualTo("fetch");
        assertThat(first.header("Cache-Control")).contains("max-age=900");
        Answer second = work(Map.of("If-None-Match", first.header("ETag")));
        assertThat(second.status()).isEqualTo(304);
        assertThat(page().path("lastSeen").asString()).isNotEmpty();
    }

    @Test
    void contentIsFetchedByItsHashAndInRanges() {
        String sha = work(Map.of()).body().at("/jobs/0/contents/0/sha256").asString();
        Answer whole = signed("GET", "/device/v1/content/" + sha, null, Map.of());
        assertThat(whole.body().binaryValue()).isEqualTo(Titles.INSTALLER);
        Answer part = signed("GET", "/device/v1/content/" + sha, null, Map.of("Range", "bytes=2-5"));
        assertThat(part.status()).isEqualTo(206);
        assertThat(part.body().binaryValue()).isEqualTo("made".getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void contentThatIsNotThereIsSaid() {
        Answer answer = signed("GET", "/device/v1/content/" + "0".repeat(64), null, Map.of());
        assertThat(answer.status()).isEqualTo(404);
        assertThat(answer.code()).isEqualTo("no-content");
        assertThat(signed("GET", "/device/v1/content/..%2Frivo.mv.db", null, Map.of()).status()).isBetween(400, 404);
    }

    @Test
    void aReportIsTakenOnceAndShows() {
        String report = "{\"number\":1,\"facts\":{\"arch\":\"x64\"},\"present\":[{\"title\":\"siltscope\","
                + "\"version\":\"4.2.0\"}],\"software\":[{\"name\":\"Siltscope Lab\",\"version\":\"4.2.0\"}]}";
        assertThat(report(report).body().path("taken").asBoolean()).isTrue();
        Answer again = report(report);
        assertThat(again.status()).isEqualTo(200);
        assertThat(again.body().path("taken").asBoolean()).isFalse();
        assertThat(again.body().path("last").asInt()).isEqualTo(1);
        assertThat(page().at("/facts/arch").asString()).isEqualTo("x64");
        assertThat(page().at("/lines/0/group").asString()).isEqualTo("in-place");
    }

    @Test
    void progressShowsOnTheDevicesPage() {
        report("{\"number\":1,\"progress\":[{\"title\":\"siltscope\",\"action\":\"install\",\"version\":\"4.2.0\","
                + "\"state\":\"running\",\"step\":2,\"steps\":4,\"percent\":25,\"message\":\"checking its SHA-256\","
                + "\"at\":\"2026-11-23T08:00:00Z\"}]}");
        JsonNode line = page().at("/lines/0");
        assertThat(line.path("group").asString()).isEqualTo("under-way");
        assertThat(line.path("line").asString()).isEqualTo("step 2 of 4 · checking its SHA-256");
        assertThat(line.path("percent").asInt()).isEqualTo(25);
        JsonNode why = server.ask("GET", "/api/devices/" + id + "/titles/siltscope", null).body();
        assertThat(why.at("/steps/0/state").asString()).isEqualTo("done");
        assertThat(why.at("/steps/1/state").asString()).isEqualTo("running");
        assertThat(why.at("/log/0/message").asString()).isEqualTo("checking its SHA-256");
    }

    @Test
    void theSameTokenWithTheSameNonceGivesTheSameKey() {
        Answer again = enrol(token, NONCE);
        assertThat(again.status()).isEqualTo(201);
        assertThat(Base64.getDecoder().decode(again.body().path("key").asString())).isEqualTo(key);
    }

    @Test
    void aTokenIsGoodForOneDeviceOnly() {
        Answer other = enrol(token, "another-random-nonce");
        assertThat(other.status()).isEqualTo(401);
        assertThat(other.code()).isEqualTo("bad-token");
        assertThat(work(Map.of()).status()).as("the key goes on working").isEqualTo(200);
    }

    @Test
    void aTokenUsedBeforeEndsWithItsKey() {
        String second = server.bean(Enrolments.class).newTokens("test", List.of(id), Duration.ofHours(1)).get(id)
                .token();
        assertThat(enrol(second, "another-random-nonce").status()).isEqualTo(201);
        assertThat(enrol(token, NONCE).code()).isEqualTo("bad-token");
        assertThat(work(Map.of()).code()).as("the old key has ended").isEqualTo("bad-signature");
    }

    @Test
    void aWrongTokenOrNonceIsRefused() {
        assertThat(enrol("guessed", NONCE).code()).isEqualTo("bad-token");
        assertThat(enrol(token, "short").code()).isEqualTo("bad-nonce");
    }

    @Test
    void anOldTokenIsRefused() {
        String old = server.bean(Enrolments.class).newTokens("test", List.of(id), Duration.ofSeconds(-1)).get(id)
                .token();
        assertThat(enrol(old, NONCE).code()).isEqualTo("bad-token");
    }

    @Test
    void anUnsignedRequestIsRefused() {
        Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve("/device/v1/devices/" + id + "/work")),
                "GET", null);
        assertThat(answer.status()).isEqualTo(401);
        assertThat(answer.code()).isEqualTo("unsigned");
    }

    @Test
    void aSignatureByAnotherKeyIsRefused() {
        key = new byte[32];
        assertThat(work(Map.of()).code()).isEqualTo("bad-signature");
    }

    @Test
    void anOldSignatureIsRefused() {
        String path = "/device/v1/devices/" + id + "/work";
        Signature old = Signature.sign(key, id, Instant.now().minusSeconds(600), "GET", path, null);
        Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve(path))
                .header("Signature-Input", old.inputHeader(false)).header("Signature", old.valueHeader()), "GET",
                null);
        assertThat(answer.code()).isEqualTo("old-signature");
    }

    @Test
    void aDeviceSpeaksForItselfOnly() {
        Answer answer = signed("POST", "/device/v1/devices/" + server.device("QB-COR-001") + "/reports",
                "{\"number\":1}".getBytes(StandardCharsets.UTF_8), Map.of());
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.code()).isEqualTo("not-yours");
    }

    @Test
    void aBodyThatWasChangedOnTheWayIsRefused() {
        String path = "/device/v1/devices/" + id + "/reports";
        String digest = Signature.digest("{\"number\":1}".getBytes(StandardCharsets.UTF_8));
        Signature signature = Signature.sign(key, id, Instant.now(), "POST", path, digest);
        Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve(path))
                .header("Signature-Input", signature.inputHeader(true)).header("Signature", signature.valueHeader())
                .header("Content-Digest", digest), "POST", "{\"number\":2}".getBytes(StandardCharsets.UTF_8));
        assertThat(answer.code()).isEqualTo("wrong-digest");
    }

    @Test
    void aMalformedReportIsRefusedAndChangesNothing() {
        assertThat(report("{\"number\":").code()).isEqualTo("malformed");
        assertThat(report("[]").status()).isEqualTo(400);
        assertThat(report("{\"number\":1,\"progress\":[{\"title\":\"siltscope\",\"state\":\"dancing\"}]}").status())
                .isEqualTo(400);
        assertThat(report("{\"number\":1}").body().path("taken").asBoolean()).as("number 1 is still free").isTrue();
    }

    @Test
    void everythingWrongWithAReportIsSaidAtOnce() {
        Answer answer = report("{\"number\":0,\"facts\":{\"x.note\":\"" + "y".repeat(1001) + "\"}}");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("problems").size()).isEqualTo(2);
        Answer twice = report("{\"number\":1,\"present\":[{\"title\":\"moonware\"},{\"title\":\"moonware\"}],"
                + "\"progress\":[{\"title\":\"siltscope\",\"step\":3,\"steps\":2,\"percent\":101}]}");
        assertThat(JSON.writeValueAsString(twice.body())).contains("unknown-title", "twice", "bad-step", "missing",
                "bad-text");
    }

    @Test
    void aMessageThatIsTooLargeIsRefused() {
        assertThat(report("{\"number\":1,\"facts\":{\"x.a\":\"" + "y".repeat(1 << 20) + "\"}}").code())
                .isEqualTo("too-large");
    }

    @Test
    void linesOlderThanThreeMonthsAreForgotten() {
        report("{\"number\":1,\"progress\":[" + progress("2020-01-01T00:00:00Z") + "," + progress(Instant.now().toString())
                + "]}");
        server.bean(Reports.class).forgetOldLines();
        assertThat(server.ask("GET", "/api/devices/" + id + "/titles/siltscope", null).body().path("log").size())
                .isEqualTo(1);
    }

    private static String progress(String at) {
        return "{\"title\":\"siltscope\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"running\","
                + "\"step\":1,\"steps\":4,\"percent\":0,\"message\":\"fetching\",\"at\":\"" + at + "\"}";
    }

    @Test
    void aDeviceThatIsNotInTheDirectoryHasNoPage() {
        assertThat(server.ask("GET", "/api/devices/moon", null).status()).isEqualTo(404);
        assertThat(server.ask("POST", "/api/devices/moon/token", Map.of()).status()).isEqualTo(404);
    }

    @Test
    void damagedContentIsNotServed() throws IOException {
        Path folder = Files.createDirectories(data.resolve("content"));
        String hash = "ab".repeat(32);
        Files.writeString(folder.resolve(hash), "not what its name says");
        Answer answer = signed("GET", "/device/v1/content/" + hash, null, Map.of());
        assertThat(answer.status()).isEqualTo(500);
        assertThat(answer.code()).isEqualTo("content-damaged");
    }
}
