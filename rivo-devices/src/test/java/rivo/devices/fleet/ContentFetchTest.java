package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.Work;

/** Content from the nearest place that has it, whatever the places do. */
class ContentFetchTest {

    private static final byte[] BYTES = bytes(3 * ContentFetch.PART + 5);
    private static final Job.Content CONTENT = new Job.Content(RunningJob.sha256(BYTES), BYTES.length, "setup.exe");

    private final List<HttpServer> servers = new ArrayList<>();
    private final Queue<String> asked = new ConcurrentLinkedQueue<>();
    private FakeServer server;

    private static byte[] bytes(int n) {
        byte[] bytes = new byte[n];
        new Random(7).nextBytes(bytes);
        return bytes;
    }

    /** What a place does when it is asked for one more part. */
    private interface Place {
        byte[] part(int number, int from, int to) throws IOException;
    }

    private HttpServer serve(String name, Place place) throws IOException {
        HttpServer http = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        http.setExecutor(Executors.newFixedThreadPool(2));
        int[] number = {0};
        http.createContext("/", exchange -> {
            String[] range = exchange.getRequestHeaders().getFirst("Range").substring("bytes=".length()).split("-");
            asked.add(name + " " + range[0]);
            byte[] part = place.part(number[0]++, Integer.parseInt(range[0]), Integer.parseInt(range[1]));
            answer(exchange, part);
        });
        http.start();
        servers.add(http);
        return http;
    }

    private static void answer(HttpExchange exchange, byte[] part) throws IOException {
        if (part == null) {
            exchange.sendResponseHeaders(404, -1);
        } else {
            exchange.sendResponseHeaders(206, part.length);
            exchange.getResponseBody().write(part);
        }
        exchange.close();
    }

    private static byte[] right(int from, int to) {
        return Arrays.copyOfRange(BYTES, from, to + 1);
    }

    private static Work.Mirror mirror(String id, HttpServer http) {
        return new Work.Mirror(id, "http://127.0.0.1:" + http.getAddress().getPort());
    }

    @BeforeEach
    void start() throws IOException {
        server = new FakeServer();
        server.contents = ContentFetchTest::right;
    }

    @AfterEach
    void stop() {
        servers.forEach(s -> s.stop(0));
        server.close();
    }

    private ContentFetch fetch(Work.Mirror... mirrors) {
        return new ContentFetch(new ServerConnection(server.url()), server.enrolled(), List.of(mirrors));
    }

    @Test
    void theNearestPlaceThatHasItGivesAllOfIt() throws Exception {
        ContentFetch fetch = fetch(mirror("near", serve("near", (n, from, to) -> right(from, to))));
        assertThat(fetch.fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch.fetched()).containsExactly(new Report.Fetched(CONTENT.sha256(), "near", BYTES.length));
        assertThat(asked).hasSize(4);
        assertThat(server.asked).isEmpty();
        assertThat(fetch.troubles()).isEmpty();
    }

    @Test
    void whatBreaksOffIsGoneOnWithAtTheNextPlace() throws Exception {
        ContentFetch fetch = fetch(mirror("near", serve("near", (n, from, to) -> n < 2 ? right(from, to) : null)));
        assertThat(fetch.fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch.fetched()).containsExactly(new Report.Fetched(CONTENT.sha256(), "near", 2 * ContentFetch.PART),
                new Report.Fetched(CONTENT.sha256(), null, ContentFetch.PART + 5));
        assertThat(server.asked).contains("server " + 2 * ContentFetch.PART).doesNotContain("server 0");
        assertThat(fetch.troubles()).isEqualTo("the mirror near: it answered 404");
    }

    @Test
    void aMirrorThatGivesSomethingElseIsNotBelieved() throws Exception {
        ContentFetch fetch = fetch(mirror("forged", serve("forged", (n, from, to) -> new byte[to - from + 1])),
                mirror("right", serve("right", (n, from, to) -> right(from, to))));
        assertThat(fetch.fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch.troubles()).isEqualTo("the mirror forged gave something else than setup.exe");
        assertThat(asked).contains("right 0");
        assertThat(server.asked).isEmpty();
    }

    @Test
    void shortLongAndEmptyAnswersNeitherHangNorSpoilIt() throws Exception {
        assertThat(fetch(mirror("short", serve("short", (n, from, to) -> right(from, Math.min(to, from + 999_999)))))
                .fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch(mirror("empty", serve("empty", (n, from, to) -> new byte[0]))).fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch(mirror("long", serve("long", (n, from, to) -> new byte[to - from + 2]))).fetch(CONTENT)).isEqualTo(BYTES);
    }

    @Test
    void aMirrorThatIsNotThereIsPassedOver() throws Exception {
        ContentFetch fetch = fetch(new Work.Mirror("gone", "http://127.0.0.1:1"));
        assertThat(fetch.fetch(CONTENT)).isEqualTo(BYTES);
        assertThat(fetch.fetched()).extracting(Report.Fetched::mirror).containsOnlyNulls();
    }

    @Test
    void whatNobodyHasIsSaidOfEveryPlace() throws Exception {
        server.contents = (from, to) -> null;
        ContentFetch fetch = fetch(mirror("near", serve("near", (n, from, to) -> null)));
        assertThatThrownBy(() -> fetch.fetch(CONTENT)).isInstanceOf(IOException.class);
        assertThat(fetch.troubles()).startsWith("the mirror near: it answered 404; the server answered 404");
    }

    @Test
    void whatDevicesAreToldAlikeIsHeldOnce() {
        ServerConnection connection = new ServerConnection(server.url());
        byte[] told = new tools.jackson.databind.json.JsonMapper().writeValueAsBytes(new Work(List.of(), List.of(Work.Check.inventory("cad", "CAD")),
                List.of(), List.of()));
        Work one = connection.work(told);
        assertThat(connection.work(told)).isEqualTo(one);
        assertThat(connection.work(told).checks()).isSameAs(one.checks());
    }

    @Test
    void theStandInKeepsWhatItFetchedAndSaysWhatItHolds() throws Exception {
        int[] served = {0};
        HttpServer far = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        far.createContext("/", exchange -> {
            served[0]++;
            assertThat(exchange.getRequestHeaders().getFirst("Authorization")).isEqualTo("Bearer key");
            exchange.getResponseHeaders().set("Content-Range", "bytes 0-" + (BYTES.length - 1) + "/" + BYTES.length);
            answer(exchange, BYTES);
        });
        far.start();
        servers.add(far);
        try (SimulatedMirror stand = new SimulatedMirror(URI.create("http://127.0.0.1:" + far.getAddress().getPort()), "key", 0)) {
            assertThat(fetch(new Work.Mirror("stand", stand.address())).fetch(CONTENT)).isEqualTo(BYTES);
            assertThat(fetch(new Work.Mirror("stand", stand.address())).fetch(CONTENT)).isEqualTo(BYTES);
            assertThat(served[0]).as("fetched once").isEqualTo(1);
        }
    }
}
