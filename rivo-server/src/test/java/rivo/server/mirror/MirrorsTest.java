package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Device;
import rivo.devices.protocol.Work;
import rivo.server.TestServer;
import rivo.server.TestClient.Answer;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.mirror.Mirrors.Kept;

/** Which mirrors there are and whom they serve: checked, kept, and told to the devices they are for. */
class MirrorsTest {

    @TempDir
    private Path data;

    private static Answer put(TestServer server, String id, String name, String address, @Nullable String fits) {
        Map<String, Object> mirror = new HashMap<>(Map.of("id", id, "name", name, "address", address));
        if (fits != null) {
            mirror.put("fits", fits);
        }
        return server.ask("PUT", "/api/mirrors/" + id, mirror);
    }

    private static List<String> near(TestServer server, String device) {
        Snapshot now = server.bean(CurrentSnapshot.class).now();
        Device found = Objects.requireNonNull(now.estate().devices().find(server.device(device)));
        return Mirrors.of(now, found).stream().map(Work.Mirror::id).toList();
    }

    @Test
    void mirrorsAreTheSameAfterARestartAndServeThoseTheyFit() {
        Map<String, Kept> before;
        try (TestServer server = TestServer.start(data).signIn()) {
            assertThat(put(server, "coldwell", "Coldwell", "http://10.0.0.7:8090", null).status()).isEqualTo(204);
            assertThat(put(server, "hartsmere", "Hartsmere", "http://10.0.0.8:8090", "name sw \"QB-LAB-00\"").status()).isEqualTo(204);
            String key = Objects.requireNonNull(server.bean(CurrentSnapshot.class).now().get(Mirrors.PART).get("hartsmere")).key();
            assertThat(put(server, "hartsmere", "Hartsmere, cellar", "http://10.0.0.9:8090", "name sw \"QB-LAB-00\"").status()).isEqualTo(204);
            before = server.bean(CurrentSnapshot.class).now().get(Mirrors.PART);
            assertThat(Objects.requireNonNull(before.get("hartsmere")).key()).as("an edit keeps the key").isEqualTo(key).hasSizeGreaterThan(20);
            assertThat(Objects.requireNonNull(before.get("hartsmere")).mirror().name()).isEqualTo("Hartsmere, cellar");
        }
        try (TestServer server = TestServer.start(data).signIn()) {
            assertThat(server.bean(CurrentSnapshot.class).now().get(Mirrors.PART)).isEqualTo(before);
            assertThat(near(server, "QB-LAB-001")).as("in the order in which they were put in").containsExactly("coldwell", "hartsmere");
            assertThat(near(server, "QB-NET-001")).containsExactly("coldwell");
            server.ask("DELETE", "/api/mirrors/coldwell", null);
            assertThat(near(server, "QB-NET-001")).isEmpty();
            assertThat(server.ask("DELETE", "/api/mirrors/coldwell", null).code()).isEqualTo("unknown-mirror");
        }
    }

    @Test
    void whatMakesNoSenseIsRefusedAtItsField() {
        try (TestServer server = TestServer.start(data).signIn()) {
            for (String name : List.of("", "x".repeat(101), "two\nlines")) {
                assertThat(put(server, "hartsmere", name, "http://10.0.0.8:8090", null).body().at("/problems/0/place").asString()).isEqualTo("name");
            }
            assertThat(put(server, "hartsmere", "x".repeat(100), "http://10.0.0.8:8090", null).status()).isEqualTo(204);
            assertThat(put(server, "hartsmere", "Hartsmere", "ftp://10.0.0.8", null).body().at("/problems/0/place").asString()).isEqualTo("address");
            assertThat(put(server, "hartsmere", "Hartsmere", "http://10.0.0.8:8090", "arch eq").body().at("/problems/0/code").asString())
                    .isEqualTo("bad-rule");
        }
    }
}
