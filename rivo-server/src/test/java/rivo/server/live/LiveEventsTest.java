package rivo.server.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.CookieManager;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.security.authentication.TestingAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.ServerTest;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.people.SessionCheck;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The stream of changed topics, as a browser hears it. */
class LiveEventsTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    /** An event as it came. */
    private record Heard(String id, String name, String data) {

        Map<?, ?> changed() {
            return new JsonMapper().readValue(data, Map.class);
        }

        List<?> topics() {
            return (List<?>) changed().get("topics");
        }

        List<?> devices() {
            return (List<?>) changed().get("devices");
        }
    }

    /** Signs in anew and listens; gives the events as they come, the first of which says where the stream begins. */
    private static BlockingQueue<Heard> listen(String query, String... headers) throws IOException, InterruptedException {
        CookieManager cookies = new CookieManager();
        HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).build();
        http.send(HttpRequest.newBuilder(server.url().resolve("/api/session"))
                .header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString(new JsonMapper()
                        .writeValueAsString(Map.of("account", DemoOrganisation.ADMINISTRATOR, "password",
                                TestServer.PASSWORD))))
                .build(), HttpResponse.BodyHandlers.discarding());
        BlockingQueue<Heard> heard = new LinkedBlockingQueue<>();
        HttpRequest.Builder request = HttpRequest.newBuilder(server.url().resolve("/api/events" + query));
        BufferedReader lines = new BufferedReader(new InputStreamReader(
                http.send(headers.length == 0 ? request.build() : request.headers(headers).build(),
                        HttpResponse.BodyHandlers.ofInputStream()).body(), StandardCharsets.UTF_8));
        Thread reader = new Thread(() -> {
            Map<String, String> fields = new HashMap<>();
            lines.lines().forEach(line -> {
                if (line.isEmpty() && fields.containsKey("event")) {
                    heard.add(new Heard(fields.getOrDefault("id", ""), fields.get("event"), fields.getOrDefault("data", "")));
                    fields.clear();
                } else if (line.indexOf(':') > 0) {
                    fields.put(line.substring(0, line.indexOf(':')), line.substring(line.indexOf(':') + 1));
                }
            });
        }, "listener");
        reader.setDaemon(true);
        reader.start();
        return heard;
    }

    private static Heard next(BlockingQueue<Heard> heard) throws InterruptedException {
        return Objects.requireNonNull(heard.poll(5, TimeUnit.SECONDS), "nothing was told");
    }

    /** Listens, and passes over where it begins. */
    private static BlockingQueue<Heard> listening() throws Exception {
        // What happened before belongs to nobody here.
        live().endRound();
        BlockingQueue<Heard> heard = listen("");
        assertThat(next(heard).name()).isEqualTo("begun");
        return heard;
    }

    private static LiveEvents live() {
        return server.bean(LiveEvents.class);
    }

    @Test
    void anEditOfTheDraftIsTold() throws Exception {
        BlockingQueue<Heard> heard = listening();
        server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:siltscope", "ou", server.ou("Finance"), "intent",
                "required", "binding", false));
        assertThat(next(heard).topics()).isEqualTo(List.of("draft:" + DemoOrganisation.ADMINISTRATOR));
    }

    /** And with none that stays as it is: nothing else is asked for anew. */
    @Test
    void anEditedTitleIsToldWithThoseThatAreSettledWithIt() throws Exception {
        TestTitles.add(server, "alone", "Alone");
        TestTitles.add(server, "rival", "Rival");
        BlockingQueue<Heard> heard = listening();
        edit("alone", List.of());
        assertThat(next(heard).topics()).isEqualTo(List.of("title:alone", "titles"));
        edit("rival", List.of("alone"));
        assertThat(next(heard).topics()).isEqualTo(List.of("title:alone", "title:rival", "titles"));
        edit("rival", List.of());
        assertThat(next(heard).topics()).as("those that it was settled with before").isEqualTo(List.of("title:alone", "title:rival", "titles"));
    }

    private static void edit(String title, List<String> conflicts) {
        JsonNode page = server.ask("GET", "/api/titles/" + title, null).body();
        ObjectNode record = (ObjectNode) page.path("record");
        record.set("conflictsWith", new JsonMapper().valueToTree(conflicts));
        assertThat(server.ask("PUT", "/api/titles/" + title, Map.of("record", record, "revision", page.path("revision").asLong(), "why",
                "for the tests")).status()).isEqualTo(200);
    }

    @Test
    void whatHappensTogetherIsToldInOneEventEachOnce() throws Exception {
        BlockingQueue<Heard> heard = listening();
        live().changed(Topics.KITS);
        assertThat(next(heard).topics()).isEqualTo(List.of("kits"));
        // A round has just gone by: these come together.
        for (int i = 0; i < 500; i++) {
            live().changed(Topics.FACTS, Topics.ESTATE, Topics.device("d2"), Topics.device("d1"));
        }
        Heard told = next(heard);
        assertThat(told.topics()).isEqualTo(List.of("estate", "facts"));
        assertThat(told.devices()).isEqualTo(List.of("d1", "d2"));
        assertThat(told.changed().get("manyDevices")).isEqualTo(false);
        assertThat(heard.poll(500, TimeUnit.MILLISECONDS)).isNull();
    }

    @Test
    void moreDevicesThanAnybodyWouldReadAreNotNamed() throws Exception {
        BlockingQueue<Heard> heard = listening();
        live().changed(IntStream.range(0, LiveEvents.MOST_DEVICES).mapToObj(i -> Topics.device("d" + i)).toList());
        Heard named = next(heard);
        assertThat(named.devices()).hasSize(LiveEvents.MOST_DEVICES);
        assertThat(named.changed().get("manyDevices")).isEqualTo(false);
        live().changed(IntStream.rangeClosed(0, LiveEvents.MOST_DEVICES).mapToObj(i -> Topics.device("d" + i)).toList());
        Heard many = next(heard);
        assertThat(many.devices()).isEmpty();
        assertThat(many.changed().get("manyDevices")).isEqualTo(true);
        live().changed(Topics.device("d1"));
        assertThat(next(heard).devices()).as("they are counted anew each round").isEqualTo(List.of("d1"));
    }

    @Test
    void somebodyElsesDraftIsNotTold() throws Exception {
        BlockingQueue<Heard> heard = listening();
        live().changed(Topics.draft("somebody.else"));
        assertThat(heard.poll(500, TimeUnit.MILLISECONDS)).isNull();
    }

    /** Both ways: a browser says the last number in a header, whoever opens another stream in the address. */
    @Test
    void whoWasAwayIsToldWhatCameMeanwhile() throws Exception {
        BlockingQueue<Heard> before = listening();
        live().changed(Topics.KITS);
        String last = next(before).id();
        live().changed(Topics.MIRRORS);
        next(before);
        live().changed(Topics.WINDOWS);
        Heard newest = next(before);
        for (BlockingQueue<Heard> again : List.of(listen("?after=" + last), listen("", "Last-Event-ID", last))) {
            assertThat(next(again).id()).as("it begins where it ended").isEqualTo(last);
            Heard caughtUp = next(again);
            assertThat(caughtUp.topics()).isEqualTo(List.of("mirrors", "windows"));
            assertThat(caughtUp.id()).isEqualTo(newest.id());
        }
        BlockingQueue<Heard> nothingNew = listen("?after=" + newest.id());
        next(nothingNew);
        assertThat(nothingNew.poll(500, TimeUnit.MILLISECONDS)).isNull();
    }

    /** Such as that of a server that has been started anew since; or one that nobody has ever told. */
    @Test
    void whoNamesAnEventThatIsNotKnownHasMissedSome() throws Exception {
        for (String after : List.of("0a1b2c3d4e5f-3", "nonsense", next(listen("")).id() + "000000")) {
            BlockingQueue<Heard> heard = listen("?after=" + after);
            assertThat(next(heard).name()).isEqualTo("begun");
            assertThat(next(heard).name()).as(after).isEqualTo("missed");
            live().changed(Topics.KITS);
            assertThat(next(heard).topics()).as("and goes on from there").isEqualTo(List.of("kits"));
        }
    }

    @Test
    void whoWasAwayForLongerThanRoundsAreKeptHasMissedSome() {
        LiveEvents live = new LiveEvents();
        try {
            assertThat(live.isMissed(0)).isFalse();
            for (int i = 0; i < 601; i++) {
                live.changed(Topics.KITS);
                live.endRound();
            }
            assertThat(live.isMissed(1)).as("the first of the rounds that are kept is the second").isFalse();
            assertThat(live.isMissed(0)).isTrue();
        } finally {
            live.stop();
        }
    }

    /** Each holds the thread that writes to it, as one does that takes nothing. */
    @Test
    void thoseWhoTakeNothingHoldNobodyElseUp() throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        CountDownLatch held = new CountDownLatch(20);
        try {
            for (int i = 0; i < 20; i++) {
                live().listen(topic -> true, () -> {
                    held.countDown();
                    return uninterruptibly(go);
                }, null);
            }
            assertThat(held.await(10, TimeUnit.SECONDS)).isTrue();
            BlockingQueue<Heard> heard = listening();
            live().changed(Topics.DIRECTORY);
            assertThat(next(heard).topics()).isEqualTo(List.of(Topics.DIRECTORY));
        } finally {
            go.countDown();
        }
    }

    private static boolean uninterruptibly(CountDownLatch go) {
        try {
            go.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return false;
    }

    /** However slow the machine is: a round takes a fifth of a second at least. */
    @Test
    void whatComesWithinARoundIsToldTogetherAndEachOnce() throws Exception {
        BlockingQueue<Heard> heard = listening();
        long begun = System.nanoTime();
        for (int i = 0; i < 30; i++) {
            live().changed(Topics.device("d" + i));
            Thread.sleep(30);
        }
        int events = 0;
        List<Object> told = new ArrayList<>();
        for (; told.size() < 30; events++) {
            told.addAll(next(heard).devices());
        }
        assertThat(told).as("none twice, and none forgotten").hasSize(30).doesNotHaveDuplicates();
        assertThat(events).isBetween(2, (int) (Duration.ofNanos(System.nanoTime() - begun).toMillis() / 200) + 1);
        live().changed(Topics.device("last"));
        assertThat(next(heard).devices()).as("nothing is told again afterwards").isEqualTo(List.of("last"));
    }

    @Test
    void theOldestMakesRoomWhenThereAreTooMany() throws Exception {
        LiveEvents live = new LiveEvents();
        SseEmitter first = live.listen(topic -> true, () -> true, null);
        SseEmitter second = live.listen(topic -> true, () -> true, null);
        for (int i = 2; i < 500; i++) {
            live.listen(topic -> true, () -> true, null);
        }
        first.send("x");
        live.listen(topic -> true, () -> true, null);
        assertThat(live.listening()).isEqualTo(500);
        assertThatThrownBy(() -> first.send("x")).isInstanceOf(IllegalStateException.class);
        second.send("x");
        live.stop();
        assertThatThrownBy(() -> second.send("x")).as("the end of the server is theirs").isInstanceOf(IllegalStateException.class);
    }

    @Test
    void whoGoesAwayIsForgotten() throws Exception {
        int before = live().listening();
        HttpClient http = HttpClient.newHttpClient();
        InputStream stream = http.send(HttpRequest.newBuilder(server.url().resolve("/api/events")).header("Cookie", server.cookieHeaders()
                .split("\r\n")[0].substring("Cookie: ".length())).build(), HttpResponse.BodyHandlers.ofInputStream()).body();
        assertThat(stream.read()).as("the first letter of id").isEqualTo('i');
        assertThat(live().listening()).isEqualTo(before + 1);
        stream.close();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (live().listening() > before && System.nanoTime() < end) {
            live().changed(Topics.FACTS);
            Thread.sleep(50);
        }
        assertThat(live().listening()).isLessThanOrEqualTo(before);
    }

    @Test
    void aStreamAsksWhetherItsSessionStillCounts() {
        LiveEvents events = mock(LiveEvents.class);
        SessionCheck sessions = mock(SessionCheck.class);
        Authentication who = new TestingAuthenticationToken("somebody", "");
        new LiveApi(events, sessions).listen(who, "1", null);
        ArgumentCaptor<BooleanSupplier> mayListen = ArgumentCaptor.captor();
        ArgumentCaptor<Predicate<String>> hears = ArgumentCaptor.captor();
        verify(events).listen(hears.capture(), mayListen.capture(), eq("1"));
        assertThat(hears.getValue()).accepts(Topics.ESTATE, Topics.device("d1"), Topics.draft("somebody")).rejects(Topics.draft("somebody else"));
        assertThat(mayListen.getValue().getAsBoolean()).isFalse();
        when(sessions.isStill(who)).thenReturn(true);
        assertThat(mayListen.getValue().getAsBoolean()).isTrue();
    }

    /** Whoever has left the group, or whose session has ended, hears nothing more. */
    @Test
    void aStreamEndsWithTheRightToListen() throws Exception {
        SseEmitter ended = live().listen(topic -> true, () -> false, null);
        SseEmitter goesOn = live().listen(topic -> true, () -> true, null);
        Thread.sleep(1000);
        assertThatThrownBy(() -> ended.send("x")).isInstanceOf(IllegalStateException.class);
        goesOn.send("x");
        goesOn.complete();
    }
}
