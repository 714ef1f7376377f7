package rivo.devices.fleet;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Stands in for a caching web server at a site: it answers as one that is set up by Rivo's configuration does, keeps slices
 * in memory, and forgets them when it stops. Safe for any number of threads.
 */
public final class SimulatedMirror implements AutoCloseable {

    private static final Pattern PATH = Pattern.compile("/(content|held)/([0-9a-f]{64})");
    private static final Pattern RANGE = Pattern.compile("bytes=(\\d{1,18})-(\\d{1,18})");
    private static final int SLICE = 16 << 20;
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private record Slice(byte[] bytes, long size) {
    }

    private final HttpServer http;
    private final ExecutorService threads = Executors.newFixedThreadPool(4, work -> {
        Thread thread = new Thread(work, "mirror");
        thread.setDaemon(true);
        return thread;
    });
    private final HttpClient client = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    private final URI server;
    private final String key;
    private final Map<String, Slice> slices = new ConcurrentHashMap<>();

    /**
     * Starts it on this computer, at any free port.
     *
     * @param server where content comes from
     * @param key by which the server knows it
     */
    public SimulatedMirror(URI server, String key, int port) throws IOException {
        this.server = server;
        this.key = key;
        this.http = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        http.createContext("/", this::answer);
        http.setExecutor(threads);
        http.start();
    }

    /** Without a slash at the end. */
    public String address() {
        return "http://127.0.0.1:" + http.getAddress().getPort();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            Matcher path = PATH.matcher(exchange.getRequestURI().getPath());
            String header = exchange.getRequestHeaders().getFirst("Range");
            Matcher range = RANGE.matcher(header == null ? "" : header);
            if (!path.matches() || !range.matches()) {
                exchange.sendResponseHeaders(404, -1);
                return;
            }
            long from = Long.parseLong(range.group(1));
            Slice slice = slice(path.group(2), from / SLICE, "content".equals(path.group(1)));
            int start = (int) (from % SLICE);
            if (slice == null || start >= slice.bytes().length) {
                exchange.sendResponseHeaders(slice == null ? 404 : 416, -1);
                return;
            }
            // Never beyond the slice; whoever wants more asks again.
            int end = (int) Math.min(slice.bytes().length - 1L, start + Long.parseLong(range.group(2)) - from);
            exchange.getResponseHeaders().set("Content-Range", "bytes " + from + "-" + (from + end - start) + "/" + slice.size());
            boolean head = "HEAD".equals(exchange.getRequestMethod());
            exchange.sendResponseHeaders(206, head ? -1 : end - start + 1);
            if (!head) {
                exchange.getResponseBody().write(slice.bytes(), start, end - start + 1);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private @Nullable Slice slice(String sha256, long number, boolean fetch) throws IOException, InterruptedException {
        Slice held = slices.get(sha256 + " " + number);
        if (held != null || !fetch) {
            return held;
        }
        HttpResponse<byte[]> response = client.send(HttpRequest.newBuilder(server.resolve("/device/v2/content/" + sha256))
                .header("Authorization", "Bearer " + key).timeout(PATIENCE)
                .header("Range", "bytes=" + number * SLICE + "-" + ((number + 1) * SLICE - 1)).build(),
                HttpResponse.BodyHandlers.ofByteArray());
        if (response.statusCode() != 206) {
            return null;
        }
        String range = response.headers().firstValue("Content-Range").orElse("/0");
        Slice slice = new Slice(response.body(), Long.parseLong(range.substring(range.indexOf('/') + 1)));
        slices.put(sha256 + " " + number, slice);
        return slice;
    }

    @Override
    public void close() {
        http.stop(0);
        threads.shutdownNow();
    }
}
