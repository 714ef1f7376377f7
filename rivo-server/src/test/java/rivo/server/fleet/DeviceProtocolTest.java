package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.server.RawHttp;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.mirror.Mirror;
import rivo.server.mirror.Mirrors;
import rivo.server.web.ApiException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The device protocol as somebody else's device would speak it. */
class DeviceProtocolTest {

    private static final JsonMapper JSON = new JsonMapper();

    @TempDir
    private static Path data;
    private static TestServer server;
    private static int next = 1;

    /** A device of its own for each test. */
    private TestDevice device;
    private String id;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", server.ou("Laboratories"), "required", false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @BeforeEach
    void enrol() {
        device = TestDevice.enrolled(server, String.format("QB-LAB-%03d", next++ % 16 + 1));
        id = device.id;
    }

    private Answer signed(String method, String path, byte @Nullable [] body, Map<String, String> headers) {
        return device.ask(method, path, body, headers);
    }

    private Answer work(Map<String, String> headers) {
        return signed("GET", "/device/v2/work", null, headers);
    }

    private Answer report(String json) {
        return device.report(json);
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
        assertThat(second.header("ETag")).isEqualTo(first.header("ETag"));
        for (String other : List.of("\"another\"", "", first.header("ETag").replace("\"", ""))) {
            Answer whole = work(Map.of("If-None-Match", other));
            assertThat(whole.status()).as("holding " + other).isEqualTo(200);
            assertThat(whole.bytes()).as("holding " + other).isEqualTo(first.bytes());
        }
        assertThat(page().path("lastSeen").asString()).isNotEmpty();
    }

    @Test
    void contentIsFetchedByItsHashAndInRanges() {
        String sha = work(Map.of()).body().at("/jobs/0/contents/0/sha256").asString();
        Answer whole = signed("GET", "/device/v2/content/" + sha, null, Map.of());
        assertThat(whole.body().binaryValue()).isEqualTo(TestTitles.INSTALLER);
        Answer part = signed("GET", "/device/v2/content/" + sha, null, Map.of("Range", "bytes=2-5"));
        assertThat(part.status()).isEqualTo(206);
        assertThat(part.body().binaryValue()).isEqualTo("made".getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void contentThatIsNotThereIsSaid() {
        Answer answer = signed("GET", "/device/v2/content/" + "0".repeat(64), null, Map.of());
        assertThat(answer.status()).isEqualTo(404);
        assertThat(answer.code()).isEqualTo("no-content");
        assertThat(signed("GET", "/device/v2/content/..%2Frivo.mv.db", null, Map.of()).status()).isEqualTo(400);
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
    void theSameTokenWithTheSameKeyGetsTheSameAnswer() {
        Answer again = device.enrol();
        assertThat(again.status()).isEqualTo(201);
        assertThat(again.body().path("device").asString()).isEqualTo(id);
        assertThat(work(Map.of()).status()).isEqualTo(200);
    }

    @Test
    void aTokenIsGoodForOneDeviceOnly() {
        Answer other = device.withKey(AgreementKey.random()).enrol();
        assertThat(other.status()).isEqualTo(401);
        assertThat(other.code()).isEqualTo("bad-token");
        assertThat(work(Map.of()).status()).as("the key goes on working").isEqualTo(200);
    }

    @Test
    void aTokenUsedBeforeEndsWithItsKey() {
        TestDevice anew = TestDevice.withToken(server, id, Duration.ofHours(1));
        assertThat(anew.enrol().status()).isEqualTo(201);
        assertThat(device.enrol().code()).isEqualTo("bad-token");
        assertThat(work(Map.of()).code()).as("the old key has ended").isEqualTo("bad-signature");
        assertThat(anew.work().status()).isEqualTo(200);
    }

    @Test
    void whoHasNoTokenOrNoPrivateKeyDoesNotEnrol() {
        TestDevice unused = TestDevice.withToken(server, id, Duration.ofHours(1));
        AgreementKey stranger = AgreementKey.random();
        EnrolmentToken told = EnrolmentToken.parse(unused.token).orElseThrow();
        EnrolmentToken guessed = EnrolmentToken.random(told.serverPublicKey());
        assertThat(unused.enrol(stranger.publicKey(), MessageKey.ofEnrolment(stranger, guessed)).code())
                .as("the token's name alone, read in the database or on the way").isEqualTo("bad-token");
        assertThat(unused.enrol(unused.key.publicKey(), MessageKey.ofEnrolment(stranger, told)).code())
                .as("somebody else's public key").isEqualTo("bad-token");
        assertThat(unused.enrol("AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA", MessageKey.ofEnrolment(stranger, told)).code())
                .as("a key with which every secret is the same").isEqualTo("bad-token");
        assertThat(unused.enrol(null, MessageKey.ofEnrolment(stranger, told)).code()).isEqualTo("missing");
        assertThat(unused.enrol().status()).isEqualTo(201);
    }

    @Test
    void anOldTokenIsRefused() {
        assertThat(TestDevice.withToken(server, id, Duration.ofSeconds(-1)).enrol().code()).isEqualTo("bad-token");
    }

    @Test
    void theDatabaseHoldsNothingThatSpeaksForADevice() {
        List<String> columns = server.bean(JdbcClient.class).sql("select column_name from information_schema.columns where "
                + "table_name in ('ENROLMENTS', 'TOKENS')").query(String.class).list();
        assertThat(columns).containsOnly("DEVICE", "PUBLIC_KEY", "SERVER_TAG", "AT", "VALID_UNTIL", "USED_BY");
        EnrolmentToken told = EnrolmentToken.parse(device.token).orElseThrow();
        assertThat(server.bean(JdbcClient.class).sql("select public_key from tokens").query(String.class).list())
                .contains(told.key().publicKey()).doesNotContain(told.key().secretText());
    }

    @Test
    void aRevokedDeviceSpeaksNoMoreUntilItEnrolsAnew() {
        TestDevice unused = TestDevice.withToken(server, id, Duration.ofHours(1));
        assertThat(server.ask("DELETE", "/api/devices/" + id + "/enrolment", null).status()).isEqualTo(204);
        assertThat(work(Map.of()).code()).isEqualTo("bad-signature");
        assertThat(device.enrol().code()).as("its own token").isEqualTo("bad-token");
        assertThat(unused.enrol().code()).as("another token made before").isEqualTo("bad-token");
        assertThat(server.ask("DELETE", "/api/devices/" + id + "/enrolment", null).code()).isEqualTo("not-enrolled");
        TestDevice anew = TestDevice.withToken(server, id, Duration.ofHours(1));
        assertThat(anew.enrol().status()).isEqualTo(201);
        assertThat(anew.work().status()).isEqualTo(200);
    }

    @Test
    void everyAnswerIsSignedForTheVeryRequest() {
        String sha = work(Map.of()).body().at("/jobs/0/contents/0/sha256").asString();
        String etag = work(Map.of()).header("ETag");
        HttpRequest[] requests = {request("GET", "/device/v2/work", null),
            with("If-None-Match", etag), with("If-None-Match", "W/" + etag), with("If-None-Match", "*"), with("Accept", "text/plain"),
            request("POST", "/device/v2/reports", "{\"number\":1}"), request("POST", "/device/v2/reports", "{\"number\":0}"),
            request("POST", "/device/v2/reports", "{"), request("GET", "/device/v2/content/" + sha, null),
            request("GET", "/device/v2/content/" + "0".repeat(64), null)};
        int[] statuses = {200, 304, 304, 200, 200, 200, 422, 400, 200, 404};
        for (int i = 0; i < requests.length; i++) {
            Answer answer = device.send(requests[i]);
            String signature = requests[i].headers().firstValue("Signature").orElseThrow();
            assertThat(answer.status()).isEqualTo(statuses[i]);
            assertThat(device.isSigned(answer, signature)).as(requests[i] + " " + answer.headers()).isTrue();
            assertThat(device.isSigned(answer, "rivo=:another:")).isFalse();
        }
    }

    /** A call-in with one header more. */
    private HttpRequest with(String header, String value) {
        return HttpRequest.newBuilder(request("GET", "/device/v2/work", null), (n, v) -> true).header(header, value).build();
    }

    private HttpRequest request(String method, String path, @Nullable String json) {
        return device.signed(path, method, path, json == null ? null : json.getBytes(StandardCharsets.UTF_8), device.messageKey(),
                device.keyId()).build();
    }

    @Test
    void theAnswerToAnEnrolmentIsSignedByTheServersKey() {
        EnrolmentToken told = EnrolmentToken.parse(device.token).orElseThrow();
        byte[] body = ("{\"publicKey\":\"" + device.key.publicKey() + "\"}").getBytes(StandardCharsets.UTF_8);
        HttpRequest request = device.signed("/device/v2/enrolments", "POST", "/device/v2/enrolments", body,
                MessageKey.ofEnrolment(device.key, told), new KeyId(told.key().publicKey(), MessageKey.tag(told.serverPublicKey())))
                .build();
        assertThat(device.isSigned(device.send(request), request.headers().firstValue("Signature").orElseThrow())).isTrue();
    }

    @Test
    void anUnsignedRequestIsRefused() {
        for (String path : List.of("/device/v2/work", "/device/v2/content/" + "0".repeat(64))) {
            Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve(path)), "GET", null);
            assertThat(answer.status()).isEqualTo(401);
            assertThat(answer.code()).isEqualTo("unsigned");
        }
        for (String path : List.of("/device/v2/reports", "/device/v2/enrolments")) {
            assertThat(server.send(HttpRequest.newBuilder(server.url().resolve(path)), "POST", Map.of("number", 1)).code())
                    .isEqualTo("unsigned");
        }
    }

    /** Whatever is written in the address, the handler that it is routed to asks who speaks. */
    @ParameterizedTest
    @ValueSource(strings = {"/device/%762/work", "/%64evice/v2/work", "/device/v2/%77ork", "/device/v2/work/", "/device/v2//work",
        "//device/v2/work", "/device/v2/work;x=1", "/device;x/v2/work", "/DEVICE/v2/work", "/Device/V2/Work", "/device/v2/./work",
        "/device/v2/x/../work", "/device%2Fv2/work", "/device/v2/work?x=1", "/device/v2/work%20", "/device/v2/work%00",
        "/device/v2/work.json", "/api/../device/v2/work", "/%2564evice/v2/work", "/device/v2/devices/OTHER/work"})
    void noWayOfWritingTheAddressGetsPastTheSignature(String address) throws Exception {
        HttpRequest signed = device.signed("/device/v2/work", "GET", "/device/v2/work", null, device.messageKey(), device.keyId()).build();
        for (boolean withSignature : new boolean[] {false, true}) {
            StringBuilder request = new StringBuilder("GET " + address + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n");
            if (withSignature) {
                signed.headers().map().forEach((name, values) -> request.append(name + ": " + values.get(0) + "\r\n"));
            }
            String answer = RawHttp.send(server.url(), request + "\r\n");
            assertThat(answer).as(address).matches("(?s)HTTP/1.1 (400|401|403|404) .*").doesNotContain("\"jobs\"");
        }
    }

    @Test
    void theFirstVersionHasEnded() {
        Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve("/device/v1/devices/" + id + "/work")), "GET", null);
        assertThat(answer.status()).isEqualTo(410);
        assertThat(answer.body().path("detail").asString()).contains("Enrol the device anew");
    }

    @Test
    void aSignatureByAnotherKeyIsRefused() {
        assertThat(device.withKey(AgreementKey.random()).work().code()).isEqualTo("bad-signature");
        device.serverKey = AgreementKey.random().publicKey();
        assertThat(device.work().code()).as("a server key that is none of ours").isEqualTo("bad-signature");
    }

    @ParameterizedTest
    @ValueSource(longs = {-3600, -75, 75, 3600})
    void aSignatureOfAnotherTimeIsRefusedAndTold(long seconds) {
        device.clock = Duration.ofSeconds(seconds);
        HttpRequest request = request("GET", "/device/v2/work", null);
        Answer answer = device.send(request);
        assertThat(answer.code()).isEqualTo("old-signature");
        assertThat(answer.body().path("detail").asString()).contains(seconds < 0 ? "behind" : "ahead of");
        assertThat(device.isSigned(answer, request.headers().firstValue("Signature").orElseThrow()))
                .as("so that the device may believe the time it tells").isTrue();
    }

    @Test
    void aClockThatIsAlmostRightDoes() {
        device.clock = Duration.ofSeconds(-45);
        assertThat(device.work().status()).isEqualTo(200);
    }

    @Test
    void contentOfNobodysWorkIsGivenToNoDevice() throws IOException {
        String hash = server.bean(Contents.class).keep(new ByteArrayInputStream("of another device".getBytes(StandardCharsets.UTF_8)),
                "x.msi").sha256();
        Answer answer = signed("GET", "/device/v2/content/" + hash, null, Map.of());
        assertThat(answer.status()).isEqualTo(404);
        assertThat(answer.code()).as("the same as for what is not there").isEqualTo("no-content");
        TestDevice elsewhere = TestDevice.enrolled(server, "QB-COR-001");
        String sha = work(Map.of()).body().at("/jobs/0/contents/0/sha256").asString();
        assertThat(elsewhere.ask("GET", "/device/v2/content/" + sha, null, Map.of()).code()).isEqualTo("no-content");
        assertThat(signed("GET", "/device/v2/content/" + sha, null, Map.of()).status()).isEqualTo(200);
    }

    @Test
    void aMirrorKeepsItsKeyWhateverIsEdited() {
        Mirrors mirrors = server.bean(Mirrors.class);
        mirrors.put("test", new Mirror("upland", "Upland", "http://127.0.0.1:8094", null));
        String key = mirrors.key("upland");
        mirrors.put("test", new Mirror("upland", "Upland, new", "http://127.0.0.1:8095", "name sw \"QB-LAB\""));
        assertThat(mirrors.key("upland")).isEqualTo(key).hasSizeGreaterThan(20);
        assertThat(Mirrors.withKey(server.bean(CurrentSnapshot.class).now(), key)).isEqualTo(new Mirror("upland", "Upland, new", "http://127.0.0.1:8095", "name sw \"QB-LAB\""));
        mirrors.put("test", new Mirror("lowland", "Lowland", "http://127.0.0.1:8096", null));
        assertThat(mirrors.key("lowland")).isNotEqualTo(key);
        server.ask("DELETE", "/api/mirrors/upland", null);
        assertThat(Mirrors.withKey(server.bean(CurrentSnapshot.class).now(), key)).isNull();
        mirrors.put("test", new Mirror("upland", "Upland", "http://127.0.0.1:8094", null));
        assertThat(mirrors.key("upland")).as("a new mirror has a new key").isNotEqualTo(key);
        List.of("upland", "lowland").forEach(id -> server.ask("DELETE", "/api/mirrors/" + id, null));
    }

    /** A mirror that was set up for version 1 goes on; its key opens content, and nothing of any device. */
    @Test
    void aMirrorsKeyOpensContentAndNothingElse() {
        server.bean(Mirrors.class).put("test", new Mirror("van-" + next, "Van", "http://10.0.0.9:8090", null));
        String bearer = "Bearer " + server.bean(Mirrors.class).key("van-" + next);
        String sha = work(Map.of()).body().at("/jobs/0/contents/0/sha256").asString();
        for (String path : List.of("/device/v2/content/" + sha, "/device/v1/content/" + sha)) {
            assertThat(server.send(bearing(path, bearer), "GET", null).status()).as(path).isEqualTo(200);
            assertThat(server.send(bearing(path, bearer + "x"), "GET", null).code()).as(path).isEqualTo("unknown-mirror");
        }
        assertThat(server.send(bearing("/device/v2/work", bearer), "GET", null).code()).isEqualTo("unsigned");
        assertThat(server.send(bearing("/device/v2/reports", bearer), "POST", Map.of("number", 1)).code()).isEqualTo("unsigned");
        assertThat(server.sendWithoutCookies(bearing("/api/titles", bearer), "GET").status()).isEqualTo(401);
    }

    private static HttpRequest.Builder bearing(String path, String bearer) {
        return HttpRequest.newBuilder(server.url().resolve(path)).header("Authorization", bearer);
    }

    @Test
    void aNumberMayNotRunAhead() {
        assertThat(report("{\"number\":1000000}").body().path("taken").asBoolean()).isTrue();
        Answer leaping = report("{\"number\":9000000000000000000}");
        assertThat(leaping.status()).isEqualTo(422);
        assertThat(leaping.code()).isEqualTo("leaping-number");
        assertThat(report("{\"number\":2000001}").status()).isEqualTo(422);
        assertThat(report("{\"number\":2000000}").body().path("taken").asBoolean()).isTrue();
        TestDevice anew = TestDevice.withToken(server, id, Duration.ofHours(1));
        assertThat(anew.enrol().status()).isEqualTo(201);
        assertThat(anew.report("{\"number\":1}").body().path("taken").asBoolean()).as("it counts from 1 again").isTrue();
    }

    /** A list of software has thousands of entries and seldom changes: saying it again must not write it again. */
    @Test
    void whatDidNotChangeIsNotWrittenAgain() throws IOException {
        String software = java.util.stream.IntStream.range(0, 900).mapToObj(i -> "{\"name\":\"" + "n".repeat(900) + i + "\"}")
                .collect(java.util.stream.Collectors.joining(","));
        String body = "{\"number\":%d,\"facts\":{\"x.long\":\"" + "y".repeat(1000) + "\"},\"software\":[" + software + "],\"present\":[]}";
        assertThat(report(String.format(body, 1)).status()).isEqualTo(200);
        long before = Files.size(data.resolve("rivo.mv.db"));
        for (int i = 2; i <= 25; i++) {
            assertThat(report(String.format(body, i)).status()).isEqualTo(200);
        }
        assertThat(Files.size(data.resolve("rivo.mv.db")) - before).as("bytes for 24 reports of 0.8 MB").isLessThan(4 << 20);
        assertThat(report("{\"number\":26,\"facts\":{\"x.long\":\"" + "y".repeat(1000) + "\",\"arch\":\"x64\"}}").status()).isEqualTo(200);
        List<String> told = server.bean(JdbcClient.class).sql("select after_value from device_changes where device = ? "
                + "order by number desc").params(id).query(String.class).list();
        assertThat(told.get(0)).as("the difference, and nothing else").isEqualTo("{\"fact arch\":\"x64\"}");
    }

    @Test
    void aBodyThatWasChangedOnTheWayIsRefused() {
        byte[] body = "{\"number\":1}".getBytes(StandardCharsets.UTF_8);
        HttpRequest signed = device.signed("/device/v2/reports", "POST", "/device/v2/reports", body, device.messageKey(),
                device.keyId()).build();
        HttpRequest changed = HttpRequest.newBuilder(signed, (n, v) -> true)
                .POST(HttpRequest.BodyPublishers.ofString("{\"number\":2}")).build();
        assertThat(device.send(changed).code()).isEqualTo("wrong-digest");
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
                + "\"progress\":[{\"title\":\"siltscope\",\"action\":\"install\",\"state\":\"running\",\"step\":3,\"steps\":2,"
                + "\"percent\":101,\"message\":\"" + "m".repeat(1001) + "\",\"at\":\"2026-11-23T08:00:00Z\"}]}");
        assertThat(JSON.writeValueAsString(twice.body())).contains("unknown-title", "twice", "bad-step", "bad-text");
    }

    @Test
    void anInstantThatNoRowCanHoldIsRefused() {
        for (String at : List.of("+1000000000-12-31T23:59:59.999999999Z", "-0001-12-31T23:59:59Z", "+10000-01-01T00:00:00Z")) {
            Answer answer = report("{\"number\":1,\"progress\":[" + progress(at) + "]}");
            assertThat(answer.status()).as(at).isEqualTo(422);
            assertThat(answer.body().toString()).as(at).contains("bad-time");
        }
        assertThat(report("{\"number\":1,\"progress\":[" + progress("9999-12-31T23:59:59Z") + "," + progress("0001-01-01T00:00:00Z")
                + "]}").status()).isEqualTo(200);
        server.bean(ArrivedReports.class).settle();
        assertThat(server.bean(JdbcClient.class).sql("select count(*) from report_batches").query(Integer.class).single()).isZero();
    }

    @Test
    void aMessageThatIsTooLargeIsRefused() {
        assertThat(report("{\"number\":1,\"facts\":{\"x.a\":\"" + "y".repeat(1 << 20) + "\"}}").code())
                .isEqualTo("too-large");
    }

    @Test
    void linesOlderThanThreeMonthsAreForgotten() {
        report("{\"number\":1,\"progress\":[" + progress("2020-01-01T00:00:00Z") + ","
                + progress(Instant.now().toString()).replace("\"step\":1", "\"step\":2") + "]}");
        server.bean(ArrivedReports.class).settle();
        server.bean(OldLines.class).forget();
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
        String hash = "ab".repeat(32);
        Files.writeString(Files.createDirectories(data.resolve("content")).resolve(hash), "not what its name says");
        assertThatThrownBy(() -> server.bean(Contents.class).file(hash)).isInstanceOfSatisfying(ApiException.class,
                e -> assertThat(e.code()).isEqualTo("content-damaged"));
    }
}
