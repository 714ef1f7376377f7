package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Device;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SnapshotReader;
import tools.jackson.databind.json.JsonMapper;

/** What the server knows of a device after its reports, in memory and in the database. */
class ReportsTest {

    private static final JsonMapper JSON = new JsonMapper();

    @TempDir
    private static Path data;
    private static TestServer server;
    private static int next = 1;

    private TestDevice device;

    @BeforeAll
    static void start() {
        server = TestServer.start(data);
        TestTitles.add(server);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @BeforeEach
    void enrol() {
        device = TestDevice.enrolled(server, String.format("QB-LAB-%03d", next++));
    }

    /** Each part of a report stands for itself: what is left out stays as it was, what is empty is empty. */
    @Test
    void whatAReportLeavesOutStaysAsItWas() {
        device.report("{\"number\":1,\"facts\":{\"arch\":\"x64\"},\"present\":[{\"title\":\"siltscope\",\"version\":\"4.2.0\"}],"
                + "\"software\":[{\"name\":\"Siltscope Lab\",\"version\":\"4.2.0\",\"publisher\":\"Quillbrook\"}]}");
        Device whole = known();
        device.report("{\"number\":2}");
        assertThat(known()).as("nothing said").isEqualTo(whole);
        device.report("{\"number\":3,\"facts\":{\"arch\":\"arm64\"}}");
        assertThat(known().facts().asMap()).containsExactly(Map.entry("arch", "arm64"));
        assertThat(known().software()).isEqualTo(whole.software()).hasSize(1);
        assertThat(known().present()).isEqualTo(whole.present()).hasSize(1);
        device.report("{\"number\":4,\"present\":[]}");
        assertThat(known().present()).isEmpty();
        assertThat(known().software()).isEqualTo(whole.software());
        device.report("{\"number\":5,\"software\":[]}");
        assertThat(known().software()).isEmpty();
        assertThat(known().facts().asMap()).containsExactly(Map.entry("arch", "arm64"));
        assertThat(read()).as("as a restart would read it").isEqualTo(known());
    }

    @Test
    void whatTwoDevicesReportAlikeIsOneObject() {
        String report = "{\"number\":1,\"present\":[{\"title\":\"siltscope\",\"version\":\"4.2.0\"}],\"software\":[{\"name\":\"Siltscope Lab\",\"version\":\"4.2.0\"}]}";
        device.report(report);
        Device first = known();
        enrol();
        device.report(report);
        assertThat(known().present().get(0)).isSameAs(first.present().get(0)).isSameAs(read().present().get(0));
        assertThat(known().software().get(0)).isSameAs(first.software().get(0)).isSameAs(read().software().get(0));
    }

    /** Versions that compare equal are told apart as they are written, in memory and in the database. */
    @Test
    void aVersionIsKnownAsItWasReportedLast() {
        String fact = "";
        long number = 1;
        for (String version : new String[] {"4.2", "4.2.0", "4.2", "4.2.0"}) {
            device.report("{\"number\":" + number++ + ",\"present\":[{\"title\":\"siltscope\",\"version\":\"" + version + "\"}]" + fact + "}");
            assertThat(known().present().get(0).version()).hasToString(version);
            assertThat(read().present().get(0).version()).hasToString(version);
            fact = ",\"facts\":{\"x.a\":\"" + version + "\"}";
        }
    }

    private Device known() {
        return server.bean(CurrentSnapshot.class).now().estate().devices().find(device.id);
    }

    private Device read() {
        return server.bean(SnapshotReader.class).read(Instant.now()).estate().devices().find(device.id);
    }

    /** Any sequence of reports, held against the plainest idea of what they say; the database and memory agree throughout. */
    @Test
    void anySequenceOfReportsIsKeptAsItWasSaid() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        Map<String, String> facts = Map.of();
        Map<String, String> present = Map.of();
        long number = 0;
        for (int step = 0; step < 50; step++) {
            long next = number + random.nextInt(4) - 1;
            Map<String, String> newFacts = random.nextInt(3) == 0 ? null : some(random, "x.a", "x.b", "arch");
            Map<String, String> newPresent = random.nextInt(3) == 0 ? null : some(random, "siltscope");
            Map<String, Object> body = new HashMap<>(Map.of("number", next));
            if (newFacts != null) {
                body.put("facts", newFacts);
            }
            if (newPresent != null) {
                body.put("present", newPresent.entrySet().stream().map(e -> Map.of("title", e.getKey(), "version", e.getValue())).toList());
            }
            Answer answer = device.report(new String(JSON.writeValueAsBytes(body), StandardCharsets.UTF_8));
            String what = "seed " + seed + ", step " + step;
            boolean taken = next > number;
            if (next < 1) {
                assertThat(answer.status()).as(what).isIn(200, 422);
            } else {
                assertThat(answer.body().path("taken").asBoolean()).as(what + " " + answer.body()).isEqualTo(taken);
            }
            if (taken) {
                number = next;
                facts = newFacts == null ? facts : newFacts;
                present = newPresent == null ? present : newPresent;
            }
            assertThat(known().facts().asMap()).as(what).isEqualTo(facts);
            Map<String, String> found = new HashMap<>();
            known().present().forEach(p -> found.put(p.title(), String.valueOf(p.version())));
            assertThat(found).as(what).isEqualTo(present);
            assertThat(read()).as(what).isEqualTo(known());
        }
    }

    private static Map<String, String> some(Random random, String... names) {
        Map<String, String> some = new HashMap<>();
        for (String name : names) {
            if (random.nextBoolean()) {
                some.put(name, "1." + random.nextInt(3));
            }
        }
        return some;
    }
}
