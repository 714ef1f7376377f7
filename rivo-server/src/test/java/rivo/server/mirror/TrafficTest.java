package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.Report;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.live.Told;
import rivo.server.mirror.Traffic.Total;
import tools.jackson.databind.JsonNode;

/** How much devices took where, and how much of it the server was spared. */
class TrafficTest {

    @TempDir
    private Path data;

    private static JsonNode mirrors(TestServer server) {
        return server.ask("GET", "/api/mirrors", null).body();
    }

    private static Content content(TestServer server) {
        return server.bean(Catalogue.class).now().contents().values().iterator().next();
    }

    private static String figures(JsonNode line) {
        return line.path("fetchedBytes").asLong() + " " + line.path("servedBytes").asLong() + " " + line.path("savedBytes").asLong();
    }

    @Test
    void itIsCountedForEachMirrorAndIsThereAfterARestart() {
        try (TestServer server = TestServer.start(data).signIn()) {
            TestTitles.add(server);
            for (String id : new String[] {"coldwell", "hartsmere"}) {
                Told.by(server, () -> server.ask("PUT", "/api/mirrors/" + id, Map.of("id", id, "name", id, "address", "http://10.0.0.7:8090")), "mirrors");
            }
            Content content = content(server);
            Traffic traffic = server.bean(Traffic.class);
            Told.by(server, () -> traffic.served("coldwell", content.sha256(), 12), "mirrors");
            traffic.fetched(new Report.Fetched(content.sha256(), "coldwell", 9));
            traffic.fetched(new Report.Fetched(content.sha256(), "coldwell", 8));
            traffic.fetched(new Report.Fetched(content.sha256(), "hartsmere", 1_000_000));
            traffic.fetched(new Report.Fetched(content.sha256(), "hartsmere", -5));
            traffic.fetched(new Report.Fetched(content.sha256(), null, 3));
            traffic.fetched(new Report.Fetched(content.sha256(), "another", 7));
            traffic.fetched(new Report.Fetched("0".repeat(64), "coldwell", 7));
            assertThat(traffic.of("coldwell", content.sha256())).isEqualTo(new Total(2, 17, 12));
            check(server, content);
        }
        try (TestServer server = TestServer.start(data).signIn()) {
            check(server, content(server));
            Told.by(server, () -> server.ask("DELETE", "/api/mirrors/coldwell", null), "mirrors");
            assertThat(figures(mirrors(server).at("/mirrors/0"))).as("the other one's stay").startsWith(content(server).size() + " 0 ");
            server.ask("PUT", "/api/mirrors/coldwell", Map.of("id", "coldwell", "name", "coldwell", "address", "http://10.0.0.7:8090"));
            assertThat(figures(mirrors(server).at("/mirrors/1"))).as("a new one of that name begins with nothing").isEqualTo("0 0 0");
        }
    }

    /** Nobody fetches more than there is, or less than nothing; who is not known counts for nothing. */
    private static void check(TestServer server, Content content) {
        JsonNode all = mirrors(server);
        assertThat(figures(all.at("/mirrors/0"))).isEqualTo("17 12 5");
        assertThat(figures(all.at("/mirrors/1"))).isEqualTo(content.size() + " 0 " + content.size());
        assertThat(all.path("fetchedBytes").asLong()).isEqualTo(3);
    }

    @Test
    void aMirrorThatFetchedMoreThanItGaveHasSavedNothing() {
        assertThat(new Total(1, 10, 4).and(new Total(2, 1, 3))).isEqualTo(new Total(3, 11, 7));
        assertThat(new Total(1, 10, 4).saved()).isEqualTo(6);
        assertThat(new Total(1, 4, 10).saved()).isZero();
    }
}
