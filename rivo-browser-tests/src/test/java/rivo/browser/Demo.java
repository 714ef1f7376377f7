package rivo.browser;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import rivo.server.Rivo;

/** The small demo as a newcomer starts it: a process of its own that prints where it runs. */
final class Demo implements AutoCloseable {

    private final Process process;
    private final URI url;
    private final String account;
    private final String password;

    private Demo(Process process, List<String> said) {
        this.process = process;
        this.url = URI.create(after(said, "Rivo runs at"));
        this.account = after(said, "Sign in as");
        this.password = after(said, "Password");
    }

    static Demo start(Path data) throws IOException {
        Process process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:TieredStopAtLevel=1",
                "-Drivo.demo.sessions=15s", "-Drivo.demo.shelf=0", "-cp",
                System.getProperty("java.class.path").replace("\n", File.pathSeparator), Rivo.class.getName(), "demo",
                "--small", "--port", "0", "--data", data.toString()).redirectErrorStream(true).start();
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(),
                StandardCharsets.UTF_8));
        List<String> said = new ArrayList<>();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            said.add(line);
            if (line.startsWith("Ctrl-C")) {
                drain(out);
                return new Demo(process, said);
            }
        }
        throw new IllegalStateException("the demo did not start: " + said);
    }

    /** Goes on reading, so that the demo never waits for a reader. */
    private static void drain(BufferedReader out) {
        Thread thread = new Thread(() -> {
            try (out) {
                while (out.readLine() != null) {
                    continue;
                }
            } catch (IOException e) {
                // The demo has ended.
                return;
            }
        }, "demo output");
        thread.setDaemon(true);
        thread.start();
    }

    private static String after(List<String> said, String words) {
        return said.stream().filter(line -> line.startsWith(words)).map(line -> line.substring(words.length()).strip())
                .findFirst().orElseThrow();
    }

    URI url() {
        return url;
    }

    String account() {
        return account;
    }

    String password() {
        return password;
    }

    /** As Ctrl-C does. Gives the seconds until everything had stopped. */
    double stop() {
        long start = System.nanoTime();
        process.destroy();
        try {
            if (!process.waitFor(20, TimeUnit.SECONDS)) {
                throw new IllegalStateException("the demo did not stop");
            }
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return (System.nanoTime() - start) / 1e9;
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }
}
