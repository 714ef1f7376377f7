package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.server.Eventually.within;

import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.server.ServerTest;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import tools.jackson.databind.JsonNode;

/** What a mirror holds and fetches, and what is said of one that does not do as mirrors do; against one that does as it is told here. */
class CopiesTest extends ServerTest {

    private static final List<String> SAID = List.of("first", "the second", "of the third release");
    private static Contents.Content[] contents;

    private HttpServer mirror;
    private final Set<String> held = ConcurrentHashMap.newKeySet();
    private final CountDownLatch goOn = new CountDownLatch(1);
    private final CountDownLatch asked = new CountDownLatch(1);
    private volatile int answers = 206;
    private volatile boolean waits;

    @BeforeAll
    static void addTitle() throws IOException {
        contents = new Contents.Content[SAID.size()];
        TitleRecord.ReleaseRecord[] releases = new TitleRecord.ReleaseRecord[SAID.size()];
        for (int i = 0; i < contents.length; i++) {
            contents[i] = server.bean(Contents.class).keep(new ByteArrayInputStream(SAID.get(i).getBytes(StandardCharsets.UTF_8)), i + ".bin");
            releases[i] = TitleRecord.ReleaseRecord.of(i + ".0", List.of(new TitleRecord.VariantRecord("all", null, false, List.of(contents[i]),
                    List.of(Step.run("Run it", "it --quiet", List.of())), List.of(Step.run("Off", "it --off", List.of())), List.of(),
                    Presence.inventory("It"))));
        }
        server.bean(Catalogue.class).put("test", TitleRecord.of("it", "It", "Marlowe & Pask", List.of(releases)));
    }

    @BeforeEach
    void startMirror() throws IOException {
        mirror = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        mirror.setExecutor(Executors.newCachedThreadPool());
        mirror.createContext("/", exchange -> {
            String[] path = exchange.getRequestURI().getPath().split("/");
            boolean fetches = path[1].equals("content");
            if (fetches && waits) {
                asked.countDown();
                await(goOn);
            }
            if (fetches && answers == 206) {
                held.add(path[2]);
            }
            exchange.sendResponseHeaders(fetches || answers != 206 ? answers : held.contains(path[2]) ? 206 : 404, -1);
            exchange.close();
        });
        mirror.start();
        put("http://127.0.0.1:" + mirror.getAddress().getPort());
    }

    @AfterEach
    void stopMirror() {
        goOn.countDown();
        server.ask("DELETE", "/api/mirrors/hartsmere", null);
        mirror.stop(0);
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void put(String address) {
        assertThat(server.ask("PUT", "/api/mirrors/hartsmere", Map.of("id", "hartsmere", "name", "Hartsmere", "address", address)).status()).isEqualTo(204);
    }

    private static void until(Callable<Boolean> condition) {
        within(Duration.ofSeconds(20), condition);
    }

    private static JsonNode line() {
        return server.ask("GET", "/api/mirrors", null).body().at("/mirrors/0");
    }

    private static JsonNode copy(int content) {
        return server.ask("GET", "/api/mirrors/hartsmere/contents", null).body().valueStream()
                .filter(c -> c.path("fileName").asString().equals(content + ".bin")).findFirst().orElseThrow();
    }

    private static String trouble() throws InterruptedException {
        server.ask("POST", "/api/mirrors/hartsmere/look", null);
        until(() -> line().has("lookedAt"));
        return line().path("trouble").asString("");
    }

    @Test
    void whatItHoldsIsCountedContentByContent() throws Exception {
        held.add(contents[0].sha256());
        held.add(contents[2].sha256());
        assertThat(trouble()).isEmpty();
        assertThat(line().path("held").asInt()).isEqualTo(2);
        assertThat(line().path("heldBytes").asLong()).isEqualTo(contents[0].size() + contents[2].size());
        assertThat(line().path("copying").asInt()).isZero();
        assertThat(copy(1).path("state").asString()).isEqualTo("absent");
    }

    @Test
    void oneReleaseIsBroughtToEveryMirror() throws Exception {
        server.ask("POST", "/api/mirrors/copies?title=it&version=1.0", null);
        until(() -> copy(1).path("state").asString().equals("held"));
        assertThat(held).as("and no other").containsExactly(contents[1].sha256());
        assertThat(server.ask("POST", "/api/mirrors/copies?title=other&version=1.0", null).status()).isEqualTo(404);
    }

    @Test
    void twoAreFetchedAtATimeAndTheRestWaitsUntilItIsStopped() throws Exception {
        waits = true;
        server.ask("POST", "/api/mirrors/hartsmere/copies", Map.of());
        await(asked);
        assertThat(line().path("copying").asInt()).as("those that wait are under way, too").isEqualTo(contents.length);
        Set<String> states = new HashSet<>();
        for (int i = 0; i < contents.length; i++) {
            states.add(copy(i).path("state").asString());
        }
        assertThat(states).isEqualTo(Set.of("copying", "waiting"));
        server.ask("DELETE", "/api/mirrors/hartsmere/copies", null);
        goOn.countDown();
        until(() -> line().path("copying").asInt() == 0);
        assertThat(held.size()).as("what had been asked for came").isBetween(1, 2);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            401 | Not copied: the server refuses it: its key is an old one; give it the configuration anew
            403 | Not copied: the server refuses it: its key is an old one; give it the configuration anew
            502 | Not copied: it could not fetch it; look into its log
            """)
    void aCopyThatFailsSaysWhy(int status, String words) throws Exception {
        answers = status;
        server.ask("POST", "/api/mirrors/hartsmere/copies", Map.of());
        until(() -> copy(0).path("state").asString().equals("failed"));
        assertThat(copy(0).path("message").asString()).isEqualTo(words);
    }

    @Test
    void whatIsNoMirrorIsCalledSo() throws Exception {
        answers = 200;
        assertThat(trouble()).endsWith("what answers there is no mirror; give it the configuration anew");
    }

    @Test
    void whatDoesNotEvenSpeakHttpIsNoMirror() throws Exception {
        try (ServerSocket other = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread answering = new Thread(() -> {
                for (int i = 0; i < 5; i++) {
                    try (Socket one = other.accept(); OutputStream out = one.getOutputStream()) {
                        out.write("220 a post office\r\n".getBytes(StandardCharsets.US_ASCII));
                    } catch (IOException e) {
                        return;
                    }
                }
            });
            answering.setDaemon(true);
            answering.start();
            put("http://127.0.0.1:" + other.getLocalPort());
            assertThat(trouble()).startsWith("It does not answer at http://127.0.0.1:" + other.getLocalPort()).endsWith(": what answers there is no mirror");
        }
    }

    private static void putWhereNothingListens() throws IOException {
        int free;
        try (ServerSocket closed = new ServerSocket(0)) {
            free = closed.getLocalPort();
        }
        put("http://127.0.0.1:" + free);
    }

    @Test
    void whereNothingListensIsSaid() throws Exception {
        putWhereNothingListens();
        assertThat(trouble()).endsWith("nothing listens there, or its name is not known");
    }

    @Test
    void whatEndsAtTheAddressThatItHasLeftIsNotSaidOfTheNewOne() throws Exception {
        waits = true;
        server.ask("POST", "/api/mirrors/hartsmere/copies", Map.of());
        await(asked);
        putWhereNothingListens();
        String trouble = trouble();
        assertThat(trouble).isNotEmpty();
        goOn.countDown();
        server.ask("POST", "/api/mirrors/hartsmere/copies", Map.of());
        for (int i = 0; i < contents.length; i++) {
            int content = i;
            until(() -> copy(content).path("state").asString().equals("failed"));
        }
        assertThat(line().path("trouble").asString("")).isEqualTo(trouble);
        assertThat(line().path("heldBytes").asLong()).isZero();
    }

    @Test
    void whatTakesTheConnectionAndSaysNothingIsNotWaitedForForever() throws Exception {
        try (ServerSocket silent = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            put("http://127.0.0.1:" + silent.getLocalPort());
            assertThat(trouble()).endsWith("it did not answer in time");
        }
    }
}
