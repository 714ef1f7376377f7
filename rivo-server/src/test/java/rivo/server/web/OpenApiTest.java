package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.TestServer;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.cfg.JsonNodeFeature;
import tools.jackson.databind.json.JsonMapper;

/** The front end's types are made from {@code docs/api/openapi.json}, so it has to be what the server serves. */
class OpenApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT)
            .enable(JsonNodeFeature.WRITE_PROPERTIES_SORTED).build();
    private static final Path KEPT = Path.of("../docs/api/openapi.json");

    @TempDir
    private Path data;

    @Test
    void theKeptDescriptionIsTheServedOne() throws IOException {
        try (TestServer server = TestServer.start(data).signIn()) {
            String served = JSON.writeValueAsString(server.ask("GET", "/api/openapi", null).body()) + "\n";
            if (Boolean.getBoolean("rivo.write-openapi")) {
                Files.writeString(KEPT, served);
            }
            assertThat(Files.readString(KEPT)).as("run './rivo types' and commit what it writes").isEqualTo(served);
        }
    }
}
