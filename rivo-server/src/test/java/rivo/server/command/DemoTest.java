package rivo.server.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.Rivo;
import rivo.server.TestClient;

/** The demo as a newcomer starts it, in a process of its own. */
class DemoTest {

    private static final String RUNS = "Rivo runs at   ";

    @TempDir
    private Path data;
    private @Nullable Process process;
    private final List<String> said = new ArrayList<>();

    @AfterEach
    void stop() throws InterruptedException {
        kill();
    }

    private void kill() throws InterruptedException {
        if (process != null) {
            process.destroyForcibly().waitFor();
        }
    }

    private TestClient start() throws IOException {
        said.clear();
        process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:TieredStopAtLevel=1", "-cp",
                System.getProperty("java.class.path"), Rivo.class.getName(), "demo", "--small", "--port", "0", "--data", data.resolve("demo").toString())
                .redirectErrorStream(true).start();
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            said.add(line);
            if (line.startsWith(RUNS)) {
                TestClient administrator = new TestClient(URI.create(line.substring(RUNS.length())));
                assertThat(administrator.ask("POST", "/api/session", Map.of("account", DemoOrganisation.ADMINISTRATOR, "password", DemoCommand.PASSWORD))
                        .status()).isEqualTo(200);
                return administrator;
            }
        }
        throw new IllegalStateException(String.join("\n", said));
    }

    @Test
    void whoSignsInAtOnceFindsWhatTheReadmeSaysAndTheNextStartTellsNothingOfMakingIt() throws Exception {
        int assigned = start().ask("GET", "/api/assignments").body().path("total").asInt();
        assertThat(assigned).isPositive();
        assertThat(said).contains("The demo is new: its titles and first changes are being made.");
        kill();
        assertThat(start().ask("GET", "/api/assignments").body().path("total").asInt()).isEqualTo(assigned);
        assertThat(said).noneMatch(line -> line.contains("being made"));
    }
}
