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
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.ArgumentCaptor;
import org.springframework.security.authentication.TestingAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.people.SessionCheck;
import tools.jackson.databind.json.JsonMapper;

/** The stream of changed topics, as a browser hears it. */
class LiveEventsTest {

    @TempDir
    private static Path data;
    private static TestServer server;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    /** Signs in anew and listens; gives the topics as they come. */
    private static BlockingQueue<String> listen(String query) throws IOException, InterruptedException {
        CookieManager cookies = new CookieManager();
        HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).build();
        http.send(HttpRequest.newBuilder(server.url().resolve("/api/session"))
                .header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString(new JsonMapper()
                        .writeValueAsString(Map.of("account", DemoOrganisation.ADMINISTRATOR, "password",
                                TestServer.PASSWORD))))
                .build(), HttpResponse.BodyHandlers.discarding());
        BlockingQueue<String> topics = new LinkedBlockingQueue<>();
        BufferedReader lines = new BufferedReader(new InputStreamReader(
                http.send(HttpRequest.newBuilder(server.url().resolve("/api/events" + query)).build(),
                        HttpResponse.BodyHandlers.ofInputStream()).body(), StandardCharsets.UTF_8));
        // The first heartbeat says that the listener is known.
        assertThat(lines.readLine()).startsWith(":");
        Thread reader = new Thread(() -> lines.lines().filter(l -> l.startsWith("data:"))
                .forEach(l -> topics.add(l.substring("data:".length()))), "listener");
        reader.setDaemon(true);
        reader.start();
        return topics;
    }

    private static @Nullable String next(BlockingQueue<String> topics) throws InterruptedException {
        return topics.poll(3, TimeUnit.SECONDS);
    }

    @Test
    void anEditOfTheDraftIsTold() throws Exception {
        BlockingQueue<String> topics = listen("");
        server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:siltscope", "ou", server.ou("Finance"), "intent",
                "required", "binding", false));
        assertThat(next(topics)).isEqualTo("draft:" + DemoOrganisation.ADMINISTRATOR);
    }

    @Test
    void aTopicIsToldOnceForMuchThatHappensTogether() throws Exception {
        BlockingQueue<String> topics = listen("");
        server.bean(LiveEvents.class).changed(Topics.FLEET);
        assertThat(next(topics)).isEqualTo("fleet");
        // A round has just gone by: these come together.
        for (int i = 0; i < 500; i++) {
            server.bean(LiveEvents.class).changed(Topics.FLEET);
            server.bean(LiveEvents.class).changed(Topics.ESTATE);
        }
        Thread.sleep(1000);
        List<String> told = new ArrayList<>();
        topics.drainTo(told);
        assertThat(told).containsExactlyInAnyOrder("fleet", "estate");
    }

    @Test
    void aDeviceIsToldToThoseWhoWatchItOnly() throws Exception {
        BlockingQueue<String> watching = listen("?device=d1");
        BlockingQueue<String> others = listen("");
        server.bean(LiveEvents.class).changed(Topics.device("d1"));
        assertThat(next(watching)).isEqualTo("device:d1");
        assertThat(others.poll(500, TimeUnit.MILLISECONDS)).isNull();
    }

    @Test
    void somebodyElsesDraftIsNotTold() throws Exception {
        BlockingQueue<String> topics = listen("");
        server.bean(LiveEvents.class).changed(Topics.draft("somebody.else"));
        assertThat(topics.poll(500, TimeUnit.MILLISECONDS)).isNull();
    }

    /** Each holds the thread that writes to it, as one does that takes nothing. */
    @Test
    void thoseWhoTakeNothingHoldNobodyElseUp() throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        CountDownLatch held = new CountDownLatch(20);
        try {
            for (int i = 0; i < 20; i++) {
                server.bean(LiveEvents.class).listen(List.of(Topics.FLEET), () -> {
                    held.countDown();
                    return uninterruptibly(go);
                });
            }
            assertThat(held.await(10, TimeUnit.SECONDS)).isTrue();
            BlockingQueue<String> topics = listen("");
            server.bean(LiveEvents.class).changed(Topics.DIRECTORY);
            assertThat(next(topics)).isEqualTo(Topics.DIRECTORY);
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

    /** What came while its thread was busy is told when that has gone through, once. */
    @Test
    void whatComesWhileALateOneIsWrittenToIsToldAfterwards() throws Exception {
        BlockingQueue<String> topics = listen("?device=d1");
        for (int i = 0; i < 30; i++) {
            server.bean(LiveEvents.class).changed(Topics.device("d1"));
            Thread.sleep(30);
        }
        Thread.sleep(600);
        List<String> told = new ArrayList<>();
        topics.drainTo(told);
        assertThat(told).containsOnly("device:d1").hasSizeBetween(2, 7);
    }

    @Test
    void theOldestMakesRoomWhenThereAreTooMany() throws Exception {
        LiveEvents live = new LiveEvents();
        SseEmitter first = live.listen(List.of(Topics.FLEET), () -> true);
        SseEmitter second = live.listen(List.of(Topics.FLEET), () -> true);
        for (int i = 2; i < 500; i++) {
            live.listen(List.of(Topics.FLEET), () -> true);
        }
        first.send("x");
        live.listen(List.of(Topics.FLEET), () -> true);
        assertThat(live.listening()).isEqualTo(500);
        assertThatThrownBy(() -> first.send("x")).isInstanceOf(IllegalStateException.class);
        second.send("x");
        live.stop();
        assertThatThrownBy(() -> second.send("x")).as("the end of the server is theirs").isInstanceOf(IllegalStateException.class);
    }

    @Test
    void whoGoesAwayIsForgotten() throws Exception {
        int before = server.bean(LiveEvents.class).listening();
        HttpClient http = HttpClient.newHttpClient();
        InputStream stream = http.send(HttpRequest.newBuilder(server.url().resolve("/api/events")).header("Cookie", server.cookieHeaders()
                .split("\r\n")[0].substring("Cookie: ".length())).build(), HttpResponse.BodyHandlers.ofInputStream()).body();
        assertThat(stream.read()).isEqualTo(':');
        assertThat(server.bean(LiveEvents.class).listening()).isEqualTo(before + 1);
        stream.close();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (server.bean(LiveEvents.class).listening() > before && System.nanoTime() < end) {
            server.bean(LiveEvents.class).changed(Topics.FLEET);
            Thread.sleep(50);
        }
        assertThat(server.bean(LiveEvents.class).listening()).isLessThanOrEqualTo(before);
    }

    @Test
    void aStreamAsksWhetherItsSessionStillCounts() {
        LiveEvents events = mock(LiveEvents.class);
        SessionCheck sessions = mock(SessionCheck.class);
        Authentication who = new TestingAuthenticationToken("somebody", "");
        new LiveApi(events, sessions).listen(who, "d1");
        ArgumentCaptor<BooleanSupplier> mayListen = ArgumentCaptor.captor();
        verify(events).listen(eq(List.of(Topics.ESTATE, Topics.FLEET, Topics.DIRECTORY, Topics.draft("somebody"), Topics.device("d1"))),
                mayListen.capture());
        assertThat(mayListen.getValue().getAsBoolean()).isFalse();
        when(sessions.isStill(who)).thenReturn(true);
        assertThat(mayListen.getValue().getAsBoolean()).isTrue();
    }

    /** Whoever has left the group, or whose session has ended, hears nothing more. */
    @Test
    void aStreamEndsWithTheRightToListen() throws Exception {
        SseEmitter ended = server.bean(LiveEvents.class).listen(List.of(Topics.FLEET), () -> false);
        SseEmitter goesOn = server.bean(LiveEvents.class).listen(List.of(Topics.FLEET), () -> true);
        Thread.sleep(1000);
        assertThatThrownBy(() -> ended.send("x")).isInstanceOf(IllegalStateException.class);
        goesOn.send("x");
        goesOn.complete();
    }
}
