package rivo.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.directory.demo.DemoOrganisation;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody's browser: it has cookies of its own, and asks with the session's token as the front end does. */
public final class TestClient {

    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final JsonMapper JSON = new JsonMapper();

    private final URI url;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).build();

    public TestClient(URI url) {
        this.url = url;
    }

    /** What the server answered. */
    public record Answer(int status, JsonNode body, Map<String, List<String>> headers, byte[] bytes) {
        public String code() {
            return body.path("code").asString("");
        }

        public String header(String name) {
            return headers.entrySet().stream().filter(e -> e.getKey().equalsIgnoreCase(name))
                    .map(e -> e.getValue().get(0)).findFirst().orElse("");
        }
    }

    public TestClient signIn() {
        Answer answer = ask("POST", "/api/session", Map.of("account", DemoOrganisation.ADMINISTRATOR, "password", TestServer.PASSWORD));
        if (answer.status() != 200) {
            throw new IllegalStateException(answer.toString());
        }
        return this;
    }

    public Answer ask(String method, String path) {
        return ask(method, path, null);
    }

    /** @param body bytes as they are, null for none, anything else as JSON */
    public Answer ask(String method, String path, @Nullable Object body) {
        return send(HttpRequest.newBuilder(url.resolve(path)).header("X-XSRF-TOKEN", token()), method, body);
    }

    /**
     * Asks with the cookies, and no more than what the request holds.
     *
     * @throws UncheckedIOException when the server is gone, or does not answer in a minute
     */
    public Answer send(HttpRequest.Builder request, String method, @Nullable Object body) {
        byte[] bytes = body == null ? new byte[0] : body instanceof byte[] raw ? raw : JSON.writeValueAsBytes(body);
        if (bytes.length > 0 && request.copy().build().headers().firstValue("Content-Type").isEmpty()) {
            request.header("Content-Type", "application/json");
        }
        return exchange(http, request.timeout(PATIENCE).method(method, HttpRequest.BodyPublishers.ofByteArray(bytes)).build());
    }

    /** @throws UncheckedIOException when the server is gone, or does not answer in time */
    static Answer exchange(HttpClient http, HttpRequest request) {
        try {
            HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
            boolean isJson = response.headers().firstValue("Content-Type").orElse("").contains("json");
            return new Answer(response.statusCode(), isJson ? JSON.readTree(response.body()) : JSON.getNodeFactory().binaryNode(response.body()),
                    response.headers().map(), response.body());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The session's cookies and token as header lines, for those who write a request by hand. */
    public String cookieHeaders() {
        return "Cookie: " + cookies.getCookieStore().getCookies().stream().map(c -> c.getName() + "=" + c.getValue())
                .collect(Collectors.joining("; ")) + "\r\nX-XSRF-TOKEN: " + token() + "\r\n";
    }

    private String token() {
        return cookies.getCookieStore().getCookies().stream().filter(c -> c.getName().equals("XSRF-TOKEN")).map(HttpCookie::getValue)
                .findFirst().orElse("none");
    }
}
