package rivo.server;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.springframework.boot.health.contributor.Status;
import rivo.server.estate.ChangeWriter;

/** A server in a process of its own, to be killed or starved. */
public final class SpawnedServer {

    private final Process process;
    private final URI url;
    private final List<String> said = Collections.synchronizedList(new ArrayList<>());

    private SpawnedServer(Process process) throws IOException {
        this.process = process;
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        String line = out.readLine();
        while (line != null && !line.startsWith("at ")) {
            said.add(line);
            line = out.readLine();
        }
        if (line == null) {
            throw new IllegalStateException("it did not start: " + String.join("\n", said));
        }
        this.url = URI.create(line.substring(3));
        Thread reader = new Thread(() -> out.lines().forEach(said::add), "what it says");
        reader.setDaemon(true);
        reader.start();
    }

    /** @param heap such as {@code 400m} @param collector such as {@code Serial} */
    public static SpawnedServer start(Path data, String heap, String collector) throws IOException {
        return new SpawnedServer(new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1", "-XX:+Use" + collector + "GC", "-Xmx" + heap, "-cp", System.getProperty("java.class.path"), Main.class.getName(),
                data.toString()).redirectErrorStream(true).start());
    }

    public URI url() {
        return url;
    }

    /** All that it has written until now. */
    public String said() {
        synchronized (said) {
            return String.join("\n", said);
        }
    }

    /** Has it hold ever more memory while changes are taken, as one leak with every change would; to be freed when it is told so. */
    public void fillMemory() throws IOException {
        tell('+');
    }

    public void freeMemory() throws IOException {
        tell('-');
    }

    private void tell(char what) throws IOException {
        process.getOutputStream().write(what);
        process.getOutputStream().flush();
    }

    /** Ends it by SIGKILL. */
    public void kill() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    /** What runs in that process. */
    public static final class Main {

        private static final int PART = 100_000;
        private static final long SHORTEST_PAUSE_MILLIS = 10;
        /** A machine that collects slowly is given as much longer. */
        private static final int PAUSES_A_COLLECTION = 5;
        private static volatile boolean filling;

        private Main() {
        }

        public static void main(String[] arguments) throws IOException {
            TestServer server = TestServer.start(Path.of(arguments[0]), "--rivo.reports.a-minute=1000000",
                    "--rivo.reports.mebibytes-a-day=100000");
            System.out.println("at " + server.url());
            for (int told = System.in.read(); told >= 0; told = System.in.read()) {
                filling = told == '+';
                if (filling) {
                    new Thread(() -> fill(server.bean(ChangeWriter.class)), "fills the memory").start();
                }
            }
        }

        private static void fill(ChangeWriter writer) {
            List<byte[]> held = new ArrayList<>();
            long start = System.nanoTime();
            System.gc();
            long pause = Math.max(SHORTEST_PAUSE_MILLIS, TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - start) / PAUSES_A_COLLECTION);
            try {
                boolean taken = true;
                while (filling) {
                    Thread.sleep(pause);
                    boolean before = taken;
                    taken = writer.health().getStatus().equals(Status.UP);
                    if (taken) {
                        held.add(new byte[PART]);
                    } else if (before) {
                        System.out.println("in use when changes stop: " + partInUse());
                    }
                }
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
            System.out.println("held " + held.size() + " parts");
        }

        /** Of the heap, in hundredths, without garbage. */
        private static long partInUse() {
            System.gc();
            Runtime heap = Runtime.getRuntime();
            return 100 * (heap.totalMemory() - heap.freeMemory()) / heap.maxMemory();
        }
    }
}
