package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.explain.Trail;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateReader;
import rivo.server.estate.CurrentSnapshot;
import tools.jackson.databind.JsonNode;

/** The estate as a file: whoever reads it comes to the same outcomes, in the same sentences. */
class EstateExportTest {

    @TempDir
    private Path data;

    @Test
    void whatIsExportedHoldsAllAndExplainsTheSame() throws IOException {
        try (TestServer server = TestServer.start(data).signIn()) {
            TestTitles.add(server);
            put(server, "fence", server.ou("Laboratories"), Map.of("id", server.ou("Laboratories")));
            put(server, "collection", "pilot", Map.of("id", "pilot", "name", "Pilot", "rule", "name ew \"1\"", "include", List.of(server.device("QB-LAB-002"))));
            put(server, "assignment", "a-1", Map.of("id", "a-1", "subject", "title:siltscope", "intent", "required", "follows", "device", "include",
                    List.of("group:" + server.group("loan-pool"), "collection:pilot"), "exclude", List.of("ou:" + server.ou("Finance")), "within", "name pr", "release", "=4.1.0",
                    "priority", 600, "waves", List.of(Map.of("share", 50, "open", true), Map.of("to", List.of(), "open", false))));
            server.publish("all of it");
            Estate published = server.bean(CurrentSnapshot.class).now().estate();
            Estate read = EstateReader.read(new GZIPInputStream(new ByteArrayInputStream(server.ask("GET", "/api/estate", null).bytes())));
            assertThat(read.assignments().all()).isEqualTo(published.assignments().all());
            assertThat(read.collections()).isEqualTo(published.collections());
            assertThat(read.ous().all()).extracting(ou -> ou.id() + ou.fenced()).as("what an OU is called is told by its DN")
                    .containsExactlyInAnyOrderElementsOf(published.ous().all().stream().map(ou -> ou.id() + ou.fenced()).toList());
            Resolver resolver = Resolver.of(read);
            Title siltscope = Objects.requireNonNull(read.title("siltscope"));
            for (int p = 0; p < read.devices().size(); p++) {
                JsonNode screen = server.ask("GET", "/api/devices/" + read.devices().at(p).id() + "/titles/siltscope", null).body();
                Trail trail = Trail.of(resolver, siltscope, p);
                assertThat(screen.path("sentence").asString()).isEqualTo(trail.sentence());
                assertThat(screen.path("rungs").valueStream().map(rung -> rung.path("sentence").asString()))
                        .isEqualTo(trail.rungs().stream().map(trail::sentence).toList());
            }
        }
    }

    private static void put(TestServer server, String kind, String id, Map<String, Object> document) {
        assertThat(server.ask("PUT", "/api/draft/documents/" + kind + "/" + id, Map.of("revision", 0, "document", document)).status()).isEqualTo(200);
    }
}
