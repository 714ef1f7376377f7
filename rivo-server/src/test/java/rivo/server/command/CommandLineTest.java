package rivo.server.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import rivo.server.Rivo;

@ExtendWith(OutputCaptureExtension.class)
class CommandLineTest {

    @TempDir
    private Path data;

    @ParameterizedTest
    @ValueSource(strings = {"moon", "demo --moon", "demo --port x", "serve", "serve --call-in-every soon"})
    void wrongUsageIs64AndSaysWhereHelpIs(String line, CapturedOutput output) {
        assertThat(Rivo.run(line.split(" "))).isEqualTo(64);
        assertThat(output.getErr()).startsWith("rivo: ").contains("--help");
    }

    @Test
    void noCommandShowsTheUsage(CapturedOutput output) {
        assertThat(Rivo.run()).isEqualTo(64);
        assertThat(output.getErr()).contains("Usage: rivo");
    }

    @Test
    void helpIsNoError(CapturedOutput output) {
        assertThat(Rivo.run("demo", "--help")).isZero();
        assertThat(output.getOut()).contains("--small", "--fresh", "--data", "--port");
    }

    @Test
    void aNewServerKeyComesBesideTheOnesThatAreThere(CapturedOutput output) throws IOException {
        assertThat(Rivo.run("new-server-key", "--data", data.toString())).isEqualTo(64);
        assertThat(output.getErr()).contains("is no data folder of Rivo");
        Files.createDirectories(data.resolve("keys"));
        assertThat(Rivo.run("new-server-key", "--data", data.toString())).isZero();
        assertThat(Rivo.run("new-server-key", "--data", data.toString())).isZero();
        assertThat(output.getOut()).contains("it counts from the next start");
        assertThat(data.resolve("keys")).isDirectoryContaining("glob:**/server-1.key").isDirectoryContaining("glob:**/server-2.key");
    }

    @Test
    void theDemoLeavesAFolderAloneThatIsNotItsOwn(CapturedOutput output) throws IOException {
        Files.writeString(data.resolve("thesis.txt"), "years of work");
        assertThat(Rivo.run("demo", "--fresh", "--data", data.toString())).isEqualTo(64);
        assertThat(output.getErr()).contains("holds something else than the demo");
        assertThat(data.resolve("thesis.txt")).hasContent("years of work");
    }

    @Test
    void theDemoDoesNotMixItsSizes(CapturedOutput output) throws IOException {
        Files.writeString(data.resolve("demo.txt"), "full\n");
        assertThat(Rivo.run("demo", "--small", "--data", data.toString())).isEqualTo(64);
        assertThat(output.getErr()).contains("holds the full demo").contains("--fresh");
    }

    @Test
    void aPortThatIsTakenIsSaid(CapturedOutput output) throws IOException {
        try (ServerSocket taken = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            assertThat(Rivo.run("demo", "--small", "--data", data.toString(), "--port",
                    Integer.toString(taken.getLocalPort()))).isEqualTo(1);
            assertThat(output.getErr()).contains("The port " + taken.getLocalPort() + " is taken");
        }
    }
}
