package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;

class SecurityTest {

    @TempDir
    private static Path data;
    private static TestServer server;

    @BeforeAll
    static void start() {
        server = TestServer.start(data);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Answer plain(String method, String path) {
        return server.send(HttpRequest.newBuilder(server.url().resolve(path)), method, null);
    }

    private static Answer signIn(String account, String password) {
        server.ask("GET", "/api/session", null);
        return server.ask("POST", "/api/session", Map.of("account", account, "password", password));
    }

    @ParameterizedTest
    @ValueSource(strings = {"/api/titles", "/api/devices", "/api/draft", "/api/fleet", "/api/directory", "/api/search",
        "/api/events", "/api/openapi", "/api/reach/x", "/", "/reach", "/fleet/x", "/nowhere", "/env", "/info",
        "/swagger-ui/index.html", "/h2-console", "/rivo-web/index.html"})
    void nothingAnswersWithoutASession(String path) {
        assertThat(plain("GET", path).status()).isEqualTo(401);
    }

    @ParameterizedTest
    @ValueSource(strings = {"/sign-in", "/health", "/favicon.svg"})
    void theSignInAndTheHealthCheckDo(String path) {
        assertThat(plain("GET", path).status()).isEqualTo(200);
    }

    @Test
    void aBrowserGetsTheSignInInPlaceOfThePage() {
        Answer answer = server.send(HttpRequest.newBuilder(server.url().resolve("/fleet")).header("Accept",
                "text/html"), "GET", null);
        assertThat(answer.status()).isEqualTo(200);
        assertThat(new String(answer.body().binaryValue(), StandardCharsets.UTF_8)).contains("<div id=\"root\">");
    }

    @Test
    void thePageTakesNothingFromElsewhereAndNoInlineStyleWithoutItsNonce() {
        String policy = plain("GET", "/sign-in").header("Content-Security-Policy");
        assertThat(policy).contains("default-src 'none'", "script-src 'self';", "frame-ancestors 'none'", "'nonce-")
                .doesNotContain("unsafe", "http:", "https:", "*");
        assertThat(plain("GET", "/sign-in").header("Content-Security-Policy")).isNotEqualTo(policy);
    }

    @Test
    void thePageCarriesTheNonceOfItsPolicy() {
        Answer answer = plain("GET", "/sign-in");
        String policy = answer.header("Content-Security-Policy");
        String nonce = policy.substring(policy.indexOf("'nonce-") + 7, policy.indexOf("'; font-src"));
        assertThat(new String(answer.body().binaryValue(), StandardCharsets.UTF_8)).contains("nonce=\"" + nonce + "\"")
                .doesNotContain("__NONCE__");
    }

    @Test
    void theHealthCheckTellsNothingMore() {
        assertThat(plain("GET", "/health").body().has("components")).isFalse();
    }

    @Test
    void aChangeWithoutTheSessionsTokenIsRefused() {
        signIn(DemoOrganisation.ADMINISTRATOR, TestServer.PASSWORD);
        assertThat(server.ask("GET", "/api/session", null).status()).isEqualTo(200);
        Answer answer = plain("DELETE", "/api/draft");
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.code()).isEqualTo("forbidden");
        assertThat(server.ask("DELETE", "/api/session", null).status()).isEqualTo(204);
        assertThat(server.ask("GET", "/api/titles", null).status()).isEqualTo(401);
    }

    @Test
    void aWrongPasswordIsRefusedAndGuessingSlowsDown() {
        for (int i = 0; i < 5; i++) {
            assertThat(signIn("bram.guess", "wrong").code()).isEqualTo("wrong-sign-in");
        }
        Answer sixth = signIn("Bram.Guess", "wrong");
        assertThat(sixth.status()).isEqualTo(429);
        assertThat(Integer.parseInt(sixth.header("Retry-After"))).isBetween(1, 25);
    }

    @Test
    void somebodyOutsideTheGroupMayNot() throws Exception {
        server.directory().modify("dn: " + someone(), "changetype: modify", "replace: userPassword",
                "userPassword: otter");
        String account = someone().substring(4, someone().indexOf(','));
        Answer answer = signIn(account, "otter");
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.body().path("detail").asString()).contains(DemoOrganisation.ADMINISTRATORS_DN);
    }

    private static String someone() {
        return new DemoOrganisation(true).people().stream()
                .filter(p -> !p.account().equals(DemoOrganisation.ADMINISTRATOR) && p.enabled())
                .map(p -> "uid=" + p.account() + "," + p.ouDn()).findFirst().orElseThrow();
    }

    @Test
    void aBodyThatIsNoneIsSaid() {
        server.ask("GET", "/api/session", null);
        Answer answer = server.ask("POST", "/api/session", "{".getBytes(StandardCharsets.UTF_8));
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.code()).isEqualTo("malformed");
    }
}
