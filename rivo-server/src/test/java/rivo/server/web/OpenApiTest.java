package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.TestServer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.cfg.JsonNodeFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The front end's types are made from {@code docs/api/openapi.json}, and the documents' schemas are parts of it: both have to be what the server serves. */
class OpenApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT)
            .enable(JsonNodeFeature.WRITE_PROPERTIES_SORTED).build();
    private static final Path KEPT = Path.of("../docs/api/openapi.json");

    @TempDir
    private Path data;

    @Test
    void theKeptDescriptionIsTheServedOne() throws IOException {
        try (TestServer server = TestServer.start(data).signIn()) {
            JsonNode served = server.ask("GET", "/api/openapi", null).body();
            check(KEPT, served);
            for (String kind : List.of("assignment", "collection", "fence", "kit", "window")) {
                String component = kind.substring(0, 1).toUpperCase(Locale.ROOT) + kind.substring(1) + "Document";
                check(Path.of("../docs/schema/" + kind + ".schema.json"), new DocumentSchema(served).of(component));
            }
        }
    }

    private static void check(Path kept, JsonNode served) throws IOException {
        String text = JSON.writeValueAsString(served) + "\n";
        if (Boolean.getBoolean("rivo.write-openapi")) {
            Files.createDirectories(kept.getParent());
            Files.writeString(kept, text);
        }
        assertThat(Files.readString(kept)).as("run './rivo types' and commit what it writes").isEqualTo(text);
    }

    /** One component of the description as a JSON Schema of its own. An OpenAPI 3.1 document's schemas are of the 2020-12 dialect. */
    private record DocumentSchema(JsonNode description) {

        ObjectNode of(String component) {
            ObjectNode schema = JSON.createObjectNode();
            schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
            schema.put("title", component);
            schema.setAll(whole(component));
            Map<String, ObjectNode> parts = new TreeMap<>();
            collect(schema, parts);
            if (!parts.isEmpty()) {
                ObjectNode definitions = schema.putObject("$defs");
                parts.forEach(definitions::set);
            }
            return (ObjectNode) JSON.readTree(schema.toString().replace("#/components/schemas/", "#/$defs/"));
        }

        /** What is not known is refused. */
        private ObjectNode whole(String component) {
            ObjectNode schema = ((ObjectNode) description.at("/components/schemas/" + component)).deepCopy();
            return schema.put("additionalProperties", false);
        }

        private void collect(JsonNode schema, Map<String, ObjectNode> parts) {
            for (String reference : schema.findValuesAsString("$ref")) {
                String component = reference.substring(reference.lastIndexOf('/') + 1);
                if (!parts.containsKey(component)) {
                    parts.put(component, whole(component));
                    collect(parts.get(component), parts);
                }
            }
        }
    }
}
