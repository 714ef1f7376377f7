package rivo.browser;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rivo.server.Rivo;

/** A server as it is started, the demo or one of an estate file: a process of its own that prints where it runs. */
final class Demo implements AutoCloseable {

    private static final Pattern SERVED = Pattern.compile("Rivo runs at (http://\\S+?)/?,.*");
    private static final String SIGN_IN = "Sign in as administrator, password ";

    private final Process process;
    private final URI url;
    private final String account;
    private final String password;

    private Demo(Process process, URI url, String account, String password) {
        this.process = process;
        this.url = url;
        this.account = account;
        this.password = password;
        // Whoever ends the tests half way ends it, too.
        Runtime.getRuntime().addShutdownHook(new Thread(process::destroyForcibly));
    }

    /** The small demo. */
    static Demo start(Path data) throws IOException {
        return start(data, "--small");
    }

    /** @param more arguments of the command */
    static Demo start(Path data, String... more) throws IOException {
        List<String> command = rivo("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Drivo.demo.calls=1s", "-Drivo.demo.step=400ms", "-Drivo.demo.sessions=10s",
                "-Drivo.demo.shelf=0");
        command.addAll(List.of("demo", "--port", "0", "--data", data.toString()));
        command.addAll(List.of(more));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        List<String> said = said(process, "Ctrl-C");
        return new Demo(process, URI.create(after(said, "Rivo runs at")), after(said, "Sign in as"), after(said, "Password"));
    }

    /** A new server that knows an estate file. */
    static Demo serve(Path data, Path estate) throws IOException {
        List<String> command = rivo("-Xmx3g");
        command.addAll(List.of("serve", "--port", "0", "--data", data.toString(), "--estate", estate.toString()));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        List<String> said = said(process, SIGN_IN);
        return new Demo(process, URI.create(said.stream().map(SERVED::matcher).filter(Matcher::matches).findFirst().orElseThrow().group(1)),
                "administrator", after(said, SIGN_IN));
    }

    private static List<String> rivo(String... options) {
        List<String> command = new ArrayList<>(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString()));
        command.addAll(List.of(options));
        command.addAll(List.of("-cp", System.getProperty("java.class.path").replace("\n", File.pathSeparator), Rivo.class.getName()));
        return command;
    }

    /** What it says up to the line that begins with these words. */
    private static List<String> said(Process process, String last) throws IOException {
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        List<String> said = new ArrayList<>();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            said.add(line);
            if (line.startsWith(last)) {
                drain(out);
                return said;
            }
        }
        throw new IllegalStateException("it did not start: " + said);
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

    /** The processors that it has used on the average while something else was done: 1 for one of them all the time. */
    double processors(Runnable meanwhile) {
        long begun = System.nanoTime();
        Duration before = process.info().totalCpuDuration().orElseThrow();
        meanwhile.run();
        return process.info().totalCpuDuration().orElseThrow().minus(before).toNanos() / (double) (System.nanoTime() - begun);
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
