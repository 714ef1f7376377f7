package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.server.RawHttp;
import rivo.server.TestClient;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.estate.ChangeWriter;

/** What holds for every request, wherever it goes. */
class FrontDoorTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    private static String raw(String request) throws IOException {
        return RawHttp.send(server.url(), request);
    }

    /** The page, what is refused by the firewall, by a controller, by the container, and the device protocol. */
    @ParameterizedTest
    @ValueSource(strings = {"GET /sign-in", "GET /", "GET /api/titles", "GET /api/nowhere", "GET //x", "GET /%2e%2e/x", "GET /a;b", "GET /error",
        "POST /api/session", "TRACE /", "PUT /health", "GET /health?x=%ff", "GET /device/v2/work", "GET /device/%76", "GET /device/v2/nowhere",
        "GET /assets/none.js", "DELETE /api/draft"})
    void everyAnswerHasTheHeadersThatKeepBrowsersSafe(String line) throws IOException {
        String answer = raw(line + " HTTP/1.1\r\nHost: localhost\r\nAccept: text/html\r\nConnection: close\r\nContent-Length: 0\r\n\r\n");
        assertThat(answer).as(line).contains("Content-Security-Policy: default-src 'none'", "frame-ancestors 'none'",
                "X-Content-Type-Options: nosniff", "X-Frame-Options: DENY", "Cache-Control: ").doesNotContain("Strict-Transport-Security");
    }

    /** By a filter, a controller, the container or nobody: the same form everywhere, but for a browser that asks for a page. */
    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"GET /device/v2/nowhere; application/json; 404; application/problem+json; unknown-address",
        "DELETE /device/v2/work; application/json; 404; application/problem+json; unknown-address",
        "GET /device/v1/work; application/json; 410; application/problem+json; ", "GET /%zz; text/html; 400; application/problem+json; bad-request",
        "GET /a b; text/html; 400; application/problem+json; bad-request", "GET /moon; text/html; 200; text/html;charset=UTF-8; nonce",
        "GET /sign-in; text/html; 200; text/html;charset=UTF-8; nonce", "GET /moon; application/json; 401; application/problem+json; ",
        "GET /api/titles; application/json; 401; application/problem+json; "})
    void whatIsWrongIsSaidInOneForm(String line, String accept, int status, String type, String words) throws IOException {
        String answer = raw(line + " HTTP/1.1\r\nHost: localhost\r\nAccept: " + accept + "\r\nConnection: close\r\n\r\n");
        assertThat(answer).as(line).startsWith("HTTP/1.1 " + status).containsIgnoringCase("Content-Type: " + type)
                .contains(words == null ? "" : words);
    }

    /** What somebody sends before they look for an answer is taken, as far as that goes, and the line is closed after it. */
    @Test
    void aLineWhoseBodyNobodyReadIsClosed() throws IOException {
        String body = "b".repeat(40_000);
        String answer = raw("POST /api/nowhere HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: " + body.length()
                + "\r\n\r\n" + body + "GET /sign-in HTTP/1.1\r\nHost: localhost\r\n\r\n");
        assertThat(answer).contains("Connection: close");
        assertThat(answer.split("HTTP/1.1 ", -1)).as("one answer, and none to what came after").hasSize(2);
    }

    @Test
    void nobodyWithoutASessionIsGivenOne() throws IOException {
        for (String line : List.of("GET /sign-in", "GET /api/session", "GET /api/titles", "DELETE /api/draft", "POST /api/session")) {
            assertThat(raw(line + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\nContent-Length: 0\r\n\r\n")).as(line)
                    .doesNotContain("Set-Cookie");
        }
    }

    @Test
    void forwardedHeadersDoNotCountWithoutAProxy() throws IOException {
        String answer = raw("GET /api/titles HTTP/1.1\r\nHost: localhost\r\nX-Forwarded-Proto: https\r\nX-Forwarded-For: 10.6.6.6\r\n"
                + "Forwarded: for=10.6.6.6;proto=https\r\nConnection: close\r\n\r\n");
        assertThat(answer).doesNotContain("Strict-Transport-Security");
    }

    @Test
    void aBodyThatIsTooLongIsRefusedBeforeItIsRead() throws IOException {
        long begun = System.nanoTime();
        String told = RawHttp.sendAndReadUpTo(server.url(), "POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
                + "Content-Length: 900000000\r\n\r\n", "too-large");
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).as("whatever does not come").isLessThan(Duration.ofSeconds(2));
        assertThat(told).startsWith("HTTP/1.1 413").contains("too-large");
        StringBuilder chunks = new StringBuilder("POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
                + "Transfer-Encoding: chunked\r\nConnection: close\r\n\r\n");
        String chunk = "a".repeat(0x4000);
        chunks.append("4001\r\n\"").append(chunk).append("\r\n");
        for (int i = 0; i < 64; i++) {
            chunks.append("4000\r\n").append(chunk).append("\r\n");
        }
        assertThat(raw(chunks + "0\r\n\r\n")).startsWith("HTTP/1.1 413");
    }

    /** A client that sends all of it before it looks for an answer would else find a broken connection. */
    @Test
    void whoSendsAnEndlessBodyFindsTheAnswer() throws IOException {
        String body = "a".repeat(8 << 20);
        assertThat(raw("POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: " + body.length()
                + "\r\n\r\n" + body)).startsWith("HTTP/1.1 413");
        assertThat(raw("POST /api/titles HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 900000\r\n\r\n"
                + body.substring(0, 900_000))).as("refused without being read").startsWith("HTTP/1.1 403");
    }

    /** As many as there are threads, each of which never sends its body. */
    @Test
    void thoseWhoStallHoldNobodyUp() throws Exception {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-002");
        List<Socket> stalled = new ArrayList<>();
        try {
            for (int i = 0; i < 350; i++) {
                Socket socket = new Socket(server.url().getHost(), server.url().getPort());
                stalled.add(socket);
                socket.getOutputStream().write(("POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
                        + "Content-Length: 100\r\n\r\n{").getBytes(StandardCharsets.US_ASCII));
            }
            Thread.sleep(500);
            assertThat(slowestCallIn(device, 20)).isLessThan(Duration.ofMillis(500));
            assertThat(server.ask("GET", "/api/titles", null).status()).isEqualTo(200);
        } finally {
            for (Socket socket : stalled) {
                socket.close();
            }
        }
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(10);
        while (server.ask("DELETE", "/api/draft", null).status() != 200 && System.nanoTime() < end) {
            Thread.sleep(50);
        }
        assertThat(server.ask("DELETE", "/api/draft", null).status()).as("when they have gone everything goes on").isEqualTo(200);
    }

    @Test
    void changesThatWaitNeverKeepCallInsFromBeingAnswered() throws Exception {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-003");
        slowestCallIn(device, 50);
        CountDownLatch go = new CountDownLatch(1);
        ExecutorService threads = Executors.newFixedThreadPool(501);
        try {
            threads.submit(() -> server.bean(ChangeWriter.class).take(context -> {
                try {
                    return go.await(30, TimeUnit.SECONDS);
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            }));
            List<Future<Integer>> changes = new ArrayList<>();
            for (int i = 0; i < 500; i++) {
                changes.add(threads.submit(() -> server.ask("DELETE", "/api/draft", null).status()));
            }
            Thread.sleep(2_000);
            assertThat(middleCallIn(device)).isLessThan(Duration.ofMillis(50));
            go.countDown();
            List<Integer> answers = new ArrayList<>();
            for (Future<Integer> change : changes) {
                answers.add(change.get(30, TimeUnit.SECONDS));
            }
            assertThat(answers).containsOnly(200, 503);
            assertThat(answers.stream().filter(status -> status == 200).count()).isBetween(1L, (long) FrontDoor.MOST_CHANGES);
        } finally {
            go.countDown();
            threads.shutdownNow();
        }
    }

    /** Of forty. */
    private static Duration middleCallIn(TestDevice device) {
        List<Duration> times = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            times.add(slowestCallIn(device, 1));
        }
        times.sort(Duration::compareTo);
        return times.get(times.size() / 2);
    }

    private static Duration slowestCallIn(TestDevice device, int times) {
        Duration slowest = Duration.ZERO;
        for (int i = 0; i < times; i++) {
            long begun = System.nanoTime();
            assertThat(device.work().status()).isEqualTo(200);
            Duration time = Duration.ofNanos(System.nanoTime() - begun);
            slowest = time.compareTo(slowest) > 0 ? time : slowest;
        }
        return slowest;
    }

    @Test
    void oneDeviceReportsSixtyTimesAMinute() {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-004");
        int number = 1;
        long begun = System.nanoTime();
        TestClient.Answer more = device.report("{\"number\":1}");
        while (more.status() == 200 && number < 200) {
            more = device.report("{\"number\":" + ++number + "}");
        }
        int seconds = (int) Duration.ofNanos(System.nanoTime() - begun).toSeconds();
        assertThat(number).as("sixty, one each second that is given back meanwhile, and the one too many").isBetween(61, 62 + seconds);
        assertThat(more.status()).isEqualTo(429);
        assertThat(Integer.parseInt(more.header("Retry-After"))).isBetween(1, 3);
        assertThat(device.work().status()).as("it may call in all the same").isEqualTo(200);
        assertThat(TestDevice.enrolled(server, "QB-LAB-005").report("{\"number\":1}").status()).isEqualTo(200);
    }

    @Test
    void oneDeviceReportsThirtyTwoMebibytesADay() {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-006");
        String body = "{\"number\":%d,\"facts\":{" + java.util.stream.IntStream.range(0, 190).mapToObj(i -> "\"x.f" + i + "\":\""
                + "y".repeat(990) + "\"").collect(java.util.stream.Collectors.joining(",")) + "},\"software\":["
                + java.util.stream.IntStream.range(0, 800).mapToObj(i -> "{\"name\":\"" + "n".repeat(980) + i + "\"}")
                .collect(java.util.stream.Collectors.joining(",")) + "]}";
        int taken = 0;
        for (int i = 1; i <= 40; i++) {
            taken += device.report(String.format(body, i)).status() == 200 ? 1 : 0;
        }
        assertThat((long) taken * body.length()).isBetween(30L << 20, 32L << 20);
    }

    @Test
    void theSignInThatABrowserGetsInPlaceOfAPageIsNoError() {
        assertThat(server.sendWithoutCookies(HttpRequest.newBuilder(server.url()).header("Accept", "text/html"), "GET").status()).isEqualTo(200);
        assertThat(server.send(HttpRequest.newBuilder(server.url().resolve("/api/session")), "POST", Map.of()).status()).isEqualTo(422);
    }
}
