package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A server whose memory fills up, as by a leak. */
class FullMemoryTest {

    private static final Duration PATIENCE = Duration.ofMinutes(3);
    private static final Pattern WHEN_CHANGES_STOP = Pattern.compile("in use when changes stop: (\\d+)");

    @TempDir
    private Path data;

    /** The collector of the demo, and the usual one. */
    @ParameterizedTest
    @ValueSource(strings = {"Serial", "G1"})
    void changesStopLoudlyBeforeAnythingElseDoesAndGoOnWhenThereIsRoom(String collector) throws Exception {
        SpawnedServer server = SpawnedServer.start(data, "128m", collector);
        try {
            TestClient admin = new TestClient(server.url()).signIn();
            TestDevice device = TestDevice.withToken(server.url(), id(admin), token(admin));
            assertThat(device.enrol().status()).isEqualTo(201);
            server.fillMemory();
            // Nobody asks meanwhile: what pages leave behind would have the heap collected more often.
            assertThat(partInUseWhenChangesStop(server)).as("of the heap, in hundredths").isBetween(75, 93);
            await(admin, 503);
            assertThat(admin.ask("GET", "/health").body().path("status").asString()).isEqualTo("DOWN");
            TestClient.Answer refused = admin.ask("DELETE", "/api/draft");
            assertThat(refused.status()).isEqualTo(503);
            assertThat(refused.body().path("detail").asString()).contains("memory", "nothing was changed", "--memory");
            assertThat(device.report("{\"number\":1}").status()).as("a report is a change").isEqualTo(503);
            assertThat(device.work().status()).as("call-ins go on").isEqualTo(200);
            assertThat(admin.ask("GET", "/api/devices").status()).as("so do pages").isEqualTo(200);
            server.freeMemory();
            await(admin, 200);
            assertThat(admin.ask("DELETE", "/api/draft").status()).isEqualTo(200);
            assertThat(device.report("{\"number\":1}").status()).as("and nothing is lost").isEqualTo(200);
            assertThat(server.said()).contains("nearly full", "There is room in memory again").doesNotContain("OutOfMemoryError");
        } finally {
            server.kill();
        }
    }

    private static int partInUseWhenChangesStop(SpawnedServer server) throws InterruptedException {
        long end = System.nanoTime() + PATIENCE.toNanos();
        Matcher stopped = WHEN_CHANGES_STOP.matcher(server.said());
        while (!stopped.find()) {
            assertThat(System.nanoTime()).as("changes stop in time").isLessThan(end);
            Thread.sleep(100);
            stopped = WHEN_CHANGES_STOP.matcher(server.said());
        }
        return Integer.parseInt(stopped.group(1));
    }

    private static void await(TestClient admin, int health) throws InterruptedException {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (admin.ask("GET", "/health").status() != health) {
            assertThat(System.nanoTime()).as("health answers " + health + " in time").isLessThan(end);
            Thread.sleep(100);
        }
    }

    private static String id(TestClient admin) {
        return admin.ask("GET", "/api/devices?limit=1").body().at("/rows/0/id").asString();
    }

    private static String token(TestClient admin) {
        return admin.ask("POST", "/api/devices/" + id(admin) + "/token", Map.of()).body().path("token").asString();
    }
}
