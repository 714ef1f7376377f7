package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** What was done is there after a restart. */
class RestartTest {

    @TempDir
    private Path data;

    @Test
    void aRestartFindsEverythingAsItWas() {
        JsonNode reach;
        JsonNode draft;
        JsonNode kit;
        try (TestServer server = TestServer.start(data).signIn()) {
            TestTitles.add(server);
            server.ask("PUT", "/api/kits/bench", Map.of("revision", 0, "kit", Map.of("id", "bench", "name", "Lab bench",
                    "titles", List.of("siltscope"))));
            put(server, "title:siltscope", "Laboratories", "required");
            put(server, "kit:bench", "Pumping", "required");
            server.ask("POST", "/api/draft/publication", Map.of("reason", "before the restart", "token",
                    server.ask("GET", "/api/draft", null).body().at("/rehearsal/token").asString()));
            put(server, "title:siltscope", "Finance", "uninstall");
            kit = server.ask("GET", "/api/kits/bench", null).body();
            reach = server.ask("GET", "/api/reach/siltscope", null).body();
            draft = server.ask("GET", "/api/draft", null).body();
        }
        try (TestServer server = TestServer.start(data).signIn()) {
            assertThat(server.ask("GET", "/api/reach/siltscope", null).body()).isEqualTo(reach);
            assertThat(server.ask("GET", "/api/draft", null).body()).isEqualTo(draft);
            assertThat(server.ask("GET", "/api/kits/bench", null).body()).isEqualTo(kit);
            assertThat(kit.path("assigned")).hasSize(1);
            assertThat(draft.path("edits").size()).isEqualTo(1);
            JsonNode rung = server.ask("GET", "/api/reach/siltscope/ous/" + server.ou("Microbiology"), null).body()
                    .at("/rungs/0");
            assertThat(rung.path("change").asInt()).isEqualTo(1);
        }
    }

    private static void put(TestServer server, String subject, String ou, String intent) {
        server.ask("PUT", "/api/draft/edits",
                Map.of("subject", subject, "ou", server.ou(ou), "intent", intent, "binding", false));
    }
}
