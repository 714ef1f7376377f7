package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateReader;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.storage.Database;

/** A server that is filled from an estate file, for a try. */
class EstateImportTest {

    private static final Path EXAMPLE = Path.of("../docs/examples/quillbrook-labs.json");
    private static final String PASSWORD = "of-this-start";

    @TempDir
    private Path data;

    private ConfigurableApplicationContext start(Path file) {
        return new SpringApplicationBuilder(RivoApplication.class).logStartupInfo(false).properties(Map.of("rivo.data", data.toString(), "server.port",
                0, "server.address", "127.0.0.1", "spring.datasource.url", Database.url(data), "rivo.estate", file.toString(),
                "rivo.trial-password", PASSWORD)).run();
    }

    private static TestClient client(ConfigurableApplicationContext context) {
        return new TestClient(java.net.URI.create("http://127.0.0.1:" + ((WebServerApplicationContext) context).getWebServer().getPort()));
    }

    private static Map<String, String> rows(Resolver resolver, Estate of) {
        return of.devices().all().stream().collect(Collectors.toMap(Device::id, d -> resolver.device(resolver.estate().devices().find(d.id()))
                .stream().map(o -> o.user() + " " + o.title().id() + " " + o.decision().outcome()).sorted().toList().toString()));
    }

    @Test
    void everyDeviceOfTheFileReceivesWhatTheFileSaysAndTheOneAccountGetsIn() throws IOException {
        Estate file = EstateReader.read(EXAMPLE);
        for (int start = 0; start < 2; start++) {
            try (ConfigurableApplicationContext context = start(EXAMPLE)) {
                Resolver resolver = context.getBean(CurrentSnapshot.class).now().resolver();
                assertThat(rows(resolver, file)).as("start " + start).isEqualTo(rows(Resolver.of(file), file));
                TestClient client = client(context);
                assertThat(client.ask("GET", "/api/titles").status()).isEqualTo(401);
                client.ask("GET", "/api/session");
                for (Map<String, String> wrong : List.of(Map.of("account", "administrator", "password", "x"), Map.of("account", "imara.voss",
                        "password", PASSWORD), Map.of("account", "administrator", "password", ""))) {
                    assertThat(client.ask("POST", "/api/session", wrong).status()).as(wrong.toString()).isEqualTo(401);
                }
                assertThat(client.ask("POST", "/api/session", Map.of("account", "administrator", "password", PASSWORD)).status()).isEqualTo(200);
                assertThat(client.ask("GET", "/api/titles").status()).isEqualTo(200);
                assertThat(client.ask("GET", "/api/devices").body().path("total").asInt()).isEqualTo(file.devices().size());
            }
        }
    }

    @Test
    void aFolderWithSomethingInItIsLeftAlone() throws IOException {
        Files.createDirectories(data);
        TestServer.start(data).close();
        assertThatThrownBy(() -> start(EXAMPLE)).rootCause().hasMessageContaining("choose an empty one with --data");
    }

    @Test
    void anIdThatTheServerCannotHoldIsNamedAndNothingIsKept() throws IOException {
        Path file = data.resolve("long.json");
        Files.writeString(file, Files.readString(EXAMPLE).replace("\"labs\"", "\"" + "l".repeat(65) + "\"").replace("ou:labs", "ou:" + "l".repeat(65)));
        assertThatThrownBy(() -> start(file)).rootCause().hasMessageContaining("has more than 64 characters");
        try (ConfigurableApplicationContext context = start(EXAMPLE)) {
            assertThat(context.getBean(CurrentSnapshot.class).now().estate().devices().size()).isPositive();
        }
    }
}
