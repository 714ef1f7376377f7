package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.server.Eventually.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.fleet.FleetSettings;
import rivo.devices.fleet.Roster;
import rivo.devices.fleet.SimulatedFleet;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.fleet.Enrolments;
import tools.jackson.databind.JsonNode;

/** A real nginx as a mirror, by the configuration that the server writes for it. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class NginxMirrorTest {

    private static final byte[] LARGE = bytes((int) (2 * NginxFile.SLICE) + 1000);
    private static final String DEVICE = "QB-LAB-003";

    @TempDir
    private static Path data;
    @TempDir
    private static Path mirrorFolder;
    @TempDir
    private static Path fleetFolder;
    private static TestServer server;
    private static Nginx nginx;
    private static String address;
    private static Contents.Content large;
    private static final HttpClient HTTP = HttpClient.newHttpClient();

    private static byte[] bytes(int n) {
        byte[] bytes = new byte[n];
        new Random(11).nextBytes(bytes);
        return bytes;
    }

    @BeforeAll
    static void start() throws Exception {
        server = TestServer.start(data).signIn();
        large = server.bean(Contents.class).keep(new ByteArrayInputStream(LARGE), "large.msi");
        TitleRecord.VariantRecord variant = new TitleRecord.VariantRecord("all", null, false, List.of(large),
                List.of(Step.run("Run it", "large --quiet", List.of())), List.of(Step.run("Off", "large --off", List.of())), List.of(),
                Presence.inventory("Large"));
        server.bean(Catalogue.class).put("test", TitleRecord.of("large", "Large", "Marlowe & Pask",
                List.of(TitleRecord.ReleaseRecord.of("1.0", List.of(variant)))));
        TestTitles.add(server);
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        address = "http://127.0.0.1:" + port;
        assertThat(server.ask("PUT", "/api/mirrors/hartsmere", Map.of("id", "hartsmere", "name", "Hartsmere; } evil {", "address",
                address, "fits", "arch eq \"x64\"")).status()).isEqualTo(204);
        String config = new String(server.ask("GET", "/api/mirrors/hartsmere/nginx?server=" + server.url(), null).body()
                .binaryValue(), StandardCharsets.UTF_8);
        nginx = Nginx.start(mirrorFolder, config);
        until(() -> answers("/held/" + "0".repeat(64), 0) == 404);
    }

    @AfterAll
    static void stop() throws Exception {
        nginx.close();
        server.close();
    }

    private static void until(Callable<Boolean> condition) {
        within(Duration.ofSeconds(30), condition);
    }

    private static HttpResponse<byte[]> get(String path, long from, long to) throws IOException, InterruptedException {
        return HTTP.send(HttpRequest.newBuilder(URI.create(address + path)).header("Range", "bytes=" + from + "-" + to).build(),
                HttpResponse.BodyHandlers.ofByteArray());
    }

    private static int answers(String path, long from) {
        try {
            return get(path, from, from).statusCode();
        } catch (IOException e) {
            return 0;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static JsonNode line() {
        return server.ask("GET", "/api/mirrors", null).body().at("/mirrors/0");
    }

    private static JsonNode content(String fileName) {
        return server.ask("GET", "/api/mirrors/hartsmere/contents", null).body().valueStream()
                .filter(c -> c.path("fileName").asString().equals(fileName)).findFirst().orElseThrow();
    }

    private static void look() throws InterruptedException {
        String before = line().path("lookedAt").asString("");
        server.ask("POST", "/api/mirrors/hartsmere/look", null);
        until(() -> !line().path("lookedAt").asString("").equals(before));
    }

    @Test
    @Order(1)
    void itHoldsNothingAtFirstAndSaysSo() throws Exception {
        assertThat(answers("/held/" + large.sha256(), 0)).isEqualTo(404);
        assertThat(answers("/content/" + "0".repeat(64), 0)).as("what the server has not").isEqualTo(404);
        assertThat(answers("/", 0)).isEqualTo(404);
        look();
        assertThat(content("large.msi").path("state").asString()).isEqualTo("absent");
        assertThat(line().has("trouble")).isFalse();
        JsonNode looks = server.ask("GET", "/api/titles/large", null).body().at("/releases/0/looks");
        assertThat(looks.valueStream().filter(l -> l.path("code").asString().equals("not-on-mirror"))
                .map(l -> l.path("detail").asString())).singleElement().asString().contains("Hartsmere");
    }

    @Test
    @Order(2)
    void whatIsFetchedThroughItIsFetchedOnce() throws Exception {
        HttpResponse<byte[]> part = get("/content/" + large.sha256(), 5, 1004);
        assertThat(part.statusCode()).isEqualTo(206);
        assertThat(part.body()).isEqualTo(Arrays.copyOfRange(LARGE, 5, 1005));
        assertThat(answers("/held/" + large.sha256(), 0)).isEqualTo(206);
        assertThat(answers("/held/" + large.sha256(), NginxFile.SLICE)).as("the next slice is not there").isEqualTo(404);
        look();
        assertThat(content("large.msi").path("state").asString()).isEqualTo("partly");
        assertThat(content("large.msi").path("held").asLong()).isEqualTo(NginxFile.SLICE);
        assertThat(line().path("servedBytes").asLong()).isEqualTo(NginxFile.SLICE);
        get("/content/" + large.sha256(), 0, 99);
        assertThat(line().path("servedBytes").asLong()).as("no more than before").isEqualTo(NginxFile.SLICE);
    }

    @Test
    @Order(3)
    void aCopyIsBroughtThereWithoutComingBack() throws Exception {
        server.ask("POST", "/api/mirrors/hartsmere/copies", Map.of());
        until(() -> line().path("copying").asInt() == 0);
        assertThat(content("large.msi").path("state").asString()).isEqualTo("held");
        assertThat(line().path("held").asInt()).isEqualTo(server.ask("GET", "/api/mirrors", null).body().path("contents").asInt());
        assertThat(line().path("servedBytes").asLong()).isEqualTo(LARGE.length + TestTitles.INSTALLER.length);
        HttpResponse<byte[]> whole = get("/content/" + large.sha256(), 0, LARGE.length - 1L);
        assertThat(whole.body()).as("over all slices").isEqualTo(LARGE);
    }

    @Test
    @Order(4)
    void aDeviceTakesItThereAndSaysSo() throws Exception {
        String device = server.device(DEVICE);
        String token = server.bean(Enrolments.class).newTokens("test", List.of(device), Duration.ofHours(1)).get(device).token();
        server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:large", "ou", server.ou("Hartsmere Laboratory"), "intent",
                "required", "binding", false));
        server.ask("POST", "/api/draft/publication", Map.of("reason", "a test", "token",
                server.ask("GET", "/api/draft", null).body().at("/rehearsal/token").asString()));
        long served = line().path("servedBytes").asLong();
        FleetSettings settings = new FleetSettings(server.url(), fleetFolder, 5, Duration.ofMillis(200), Duration.ofSeconds(1),
                Duration.ZERO, Duration.ofMillis(10), Duration.ofSeconds(12), Duration.ZERO);
        Roster roster = new Roster(List.of(new Roster.Entry(DEVICE, token, true, Map.of("arch", "x64"), Map.of())));
        try (SimulatedFleet fleet = new SimulatedFleet(settings, roster)) {
            fleet.start();
            until(() -> line().path("fetchedBytes").asLong() >= LARGE.length);
        }
        assertThat(content("large.msi").path("fetches").asInt()).isPositive();
        assertThat(line().path("servedBytes").asLong()).as("the server gave nothing more").isEqualTo(served);
        assertThat(line().path("devices").asInt()).isEqualTo(1);
    }

    @Test
    @Order(5)
    void aMirrorThatFallsSilentIsSaidAndHoldsWhatItHeldAfterwards() throws Exception {
        nginx.stop();
        look();
        assertThat(line().path("trouble").asString()).contains("It does not answer at " + address);
        nginx.run();
        until(() -> answers("/held/" + large.sha256(), 0) == 206);
        look();
        assertThat(line().has("trouble")).isFalse();
        assertThat(content("large.msi").path("state").asString()).isEqualTo("held");
    }

    @Test
    @Order(6)
    void aMirrorThatIsDeletedMayFetchNothingMore() throws Exception {
        String key = server.bean(Mirrors.class).key("hartsmere");
        URI direct = server.url().resolve("/device/v2/content/" + large.sha256());
        HttpRequest asked = HttpRequest.newBuilder(direct).header("Authorization", "Bearer " + key).build();
        assertThat(HTTP.send(asked, HttpResponse.BodyHandlers.discarding()).statusCode()).isEqualTo(200);
        assertThat(server.ask("DELETE", "/api/mirrors/hartsmere", null).status()).isEqualTo(204);
        assertThat(HTTP.send(asked, HttpResponse.BodyHandlers.discarding()).statusCode()).isEqualTo(401);
        assertThat(server.ask("GET", "/api/mirrors", null).body().path("mirrors")).isEmpty();
    }
}
