package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.RawHttp;
import rivo.server.TestClient;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Whatever is wrong with a request, it is the request that is said to be wrong: every operation of the API's own description, with
 * malformed values at every parameter and every place of its body, signed in and not.
 */
class MalformedRequestsTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final Duration LONGEST = Duration.ofSeconds(2);
    /** Percent-encoded where they stand in an address. */
    private static final List<String> TEXTS = List.of("", "x", "-1", "9223372036854775808", "1e400", "true", "null", "%00", "%ff", "%c3%28", "%",
            "%zz", "..%2f..%2fetc", "%2e%2e", "a%0d%0aX-Forged:%201", "'%22;--", "%F0%9F%A6%A6", "a".repeat(3000), "%24%7Bx%7D", "*", "%5b%5d");
    private static final Set<String> ENDS_THE_SESSION = Set.of("DELETE /api/session");

    @TempDir
    private static Path data;
    private static TestServer server;
    private static JsonNode description;
    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private final List<String> faults = new ArrayList<>();
    private int sent;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        description = server.ask("GET", "/api/openapi", null).body();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private record Operation(String method, String path, JsonNode about) {
        @Override
        public String toString() {
            return method + " " + path;
        }
    }

    private static List<Operation> operations() {
        List<Operation> operations = new ArrayList<>();
        description.path("paths").properties().forEach(path -> path.getValue().properties().forEach(
                one -> operations.add(new Operation(one.getKey().toUpperCase(java.util.Locale.ROOT), path.getKey(), one.getValue()))));
        return operations;
    }

    @Test
    void noOperationFailsWhateverItIsGiven() {
        assertThat(operations()).hasSizeGreaterThan(40);
        for (boolean signedIn : new boolean[] {true, false}) {
            for (Operation operation : operations()) {
                parameters(operation, signedIn);
                bodies(operation, signedIn);
            }
        }
        assertThat(sent).isGreaterThan(2500);
        assertThat(faults).isEmpty();
    }

    /** One parameter malformed at a time; the others have values that may be. */
    private void parameters(Operation operation, boolean signedIn) {
        JsonNode parameters = operation.about().path("parameters");
        for (int wrong = 0; wrong < parameters.size(); wrong++) {
            // Without a session everything is refused before it is looked at: a few of them show that.
            for (String text : signedIn ? TEXTS : TEXTS.subList(5, 11)) {
                String path = operation.path();
                StringBuilder query = new StringBuilder();
                for (int i = 0; i < parameters.size(); i++) {
                    JsonNode parameter = parameters.get(i);
                    String value = i == wrong ? text : "integer".equals(parameter.at("/schema/type").asString("")) ? "1" : "siltscope";
                    if ("path".equals(parameter.path("in").asString())) {
                        path = path.replace("{" + parameter.path("name").asString() + "}", value);
                    } else if (i == wrong || parameter.path("required").asBoolean()) {
                        query.append(query.isEmpty() ? "?" : "&").append(parameter.path("name").asString()).append('=').append(value);
                    }
                }
                raw(operation, path + query, "", signedIn);
            }
        }
        raw(operation, plain(operation) + "?x=%ff", "", signedIn);
    }

    private static String plain(Operation operation) {
        return operation.path().replaceAll("\\{[^}]*}", "siltscope");
    }

    private void bodies(Operation operation, boolean signedIn) {
        JsonNode schema = operation.about().at("/requestBody/content/application~1json/schema");
        if (schema.isMissingNode()) {
            return;
        }
        JsonNode right = example(schema, 0);
        List<String> bodies = new ArrayList<>(List.of("", "{}", "[]", "null", "1", "\"x\"", "{\"", "[".repeat(5000), "{\"a\":".repeat(2000),
                "\u0000", "{\"x\":NaN}", "\ud800"));
        mutants(right).forEach(one -> bodies.add(JSON.writeValueAsString(one)));
        for (String body : signedIn ? bodies : bodies.subList(0, 12)) {
            raw(operation, plain(operation), body, signedIn);
        }
        send(operation, HttpRequest.newBuilder(server.url().resolve(plain(operation))).header("Content-Type", "multipart/form-data; boundary=x"),
                "--x\r\nContent-Disposition: form-data; name=\"a\"\r\n\r\n1\r\n--x--\r\n".getBytes(StandardCharsets.UTF_8), signedIn);
        send(operation, HttpRequest.newBuilder(server.url().resolve(plain(operation))).header("Content-Type",
                "application/x-www-form-urlencoded"), "a=%ff&b=%".getBytes(StandardCharsets.UTF_8), signedIn);
    }

    /** A value of the shape that the schema tells. */
    private static JsonNode example(JsonNode schema, int depth) {
        JsonNode told = schema.has("$ref") ? description.at(schema.path("$ref").asString().substring(1)) : schema;
        if (depth > 6) {
            return NODES.nullNode();
        }
        String type = told.path("type").isArray() ? told.path("type").get(0).asString() : told.path("type").asString("object");
        switch (type) {
            case "string":
                return told.has("enum") ? told.path("enum").get(0) : NODES.stringNode("siltscope");
            case "integer", "number":
                return NODES.numberNode(1);
            case "boolean":
                return NODES.booleanNode(true);
            case "array":
                return NODES.arrayNode().add(example(told.path("items"), depth + 1));
            default:
                ObjectNode object = NODES.objectNode();
                told.path("properties").properties().forEach(p -> object.set(p.getKey(), example(p.getValue(), depth + 1)));
                if (told.path("additionalProperties").isObject()) {
                    object.set("key", example(told.path("additionalProperties"), depth + 1));
                }
                return object;
        }
    }

    /** The value itself, and with every place of it made wrong in turn. */
    private static List<JsonNode> mutants(JsonNode value) {
        List<JsonNode> mutants = new ArrayList<>(List.of(value));
        if (value instanceof ObjectNode object) {
            object.properties().forEach(p -> {
                ObjectNode without = object.deepCopy();
                without.remove(p.getKey());
                mutants.add(without);
                wrong(p.getValue()).forEach(other -> mutants.add(object.deepCopy().set(p.getKey(), other)));
                mutants(p.getValue()).stream().skip(1).forEach(other -> mutants.add(object.deepCopy().set(p.getKey(), other)));
            });
        } else if (value instanceof ArrayNode array && !array.isEmpty()) {
            mutants.add(NODES.arrayNode().add(NODES.nullNode()));
            mutants.add(NODES.arrayNode().add(array.get(0)).add(array.get(0)));
            mutants(array.get(0)).forEach(other -> mutants.add(NODES.arrayNode().add(other)));
        }
        return mutants;
    }

    private static List<JsonNode> wrong(JsonNode value) {
        List<JsonNode> wrong = new ArrayList<>(List.of(NODES.nullNode(), NODES.objectNode(), NODES.arrayNode().add(NODES.nullNode())));
        if (value.isNumber()) {
            wrong.addAll(List.of(NODES.numberNode(-1), NODES.numberNode(Long.MAX_VALUE), NODES.numberNode(1.5), NODES.stringNode("x")));
        } else {
            wrong.addAll(List.of(NODES.stringNode(""), NODES.stringNode("\u0000"), NODES.stringNode("\ud800"), NODES.stringNode("../../x"),
                    NODES.stringNode("y".repeat(30_000)), NODES.numberNode(7)));
        }
        return wrong;
    }

    /** By hand, since no client sends such addresses. */
    private void raw(Operation operation, String address, String body, boolean signedIn) {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        String head = operation.method() + " " + address + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n"
                + (signedIn ? server.cookieHeaders() : "") + "Accept: application/json\r\nContent-Type: application/json\r\nContent-Length: "
                + bytes.length + "\r\n\r\n";
        if (signedIn && ENDS_THE_SESSION.contains(operation.toString())) {
            return;
        }
        try {
            long begun = System.nanoTime();
            byte[] start = head.getBytes(StandardCharsets.ISO_8859_1);
            byte[] request = java.util.Arrays.copyOf(start, start.length + bytes.length);
            System.arraycopy(bytes, 0, request, start.length, bytes.length);
            String answer = RawHttp.send(server.url(), request);
            judge(operation, address + " " + shown(body), answer.isEmpty() ? 0 : Integer.parseInt(answer.substring(9, 12)), answer,
                    Duration.ofNanos(System.nanoTime() - begun));
        } catch (java.io.IOException e) {
            faults.add(operation + " " + address + ": " + e);
        }
    }

    private void send(Operation operation, HttpRequest.Builder request, byte[] body, boolean signedIn) {
        try {
            if (signedIn) {
                server.cookieHeaders().lines().map(l -> l.split(": ", 2)).forEach(h -> request.header(h[0], h[1]));
            }
            long begun = System.nanoTime();
            HttpResponse<String> answer = HTTP.send(request.method(operation.method(), HttpRequest.BodyPublishers.ofByteArray(body)).build(),
                    HttpResponse.BodyHandlers.ofString());
            judge(operation, "multipart or form", answer.statusCode(), answer.body(), Duration.ofNanos(System.nanoTime() - begun));
        } catch (java.io.IOException e) {
            faults.add(operation + ": " + e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String shown(String body) {
        return body.length() > 300 ? body.substring(0, 300) + "…" : body;
    }

    private void judge(Operation operation, String what, int status, String answer, Duration time) {
        sent++;
        boolean unsigned = status == 0 || status >= 500 && status != 503 && status != 507;
        if (unsigned || time.compareTo(LONGEST) > 0 || answer.contains("Exception") || answer.contains("java.") || answer.contains("rivo.")) {
            faults.add(operation + " " + what + ": " + status + " after " + time.toMillis() + " ms: " + shown(answer));
        }
    }

    /** What else was found: addresses beside the API, and what only a device can send. */
    @Test
    void noAddressBesideTheApiFailsEither() throws Exception {
        Map<String, Integer> statuses = new TreeMap<>();
        for (String line : List.of("GET /error", "POST /error", "GET /health?x=%ff", "GET /health?%", "GET /sign-in?x=%c3%28", "GET /;x", "GET //x",
                "GET /assets/..%2f..%2fx", "GET /assets/%00", "GET /api/%ff", "GET /device/v2/%ff", "TRACE /", "OPTIONS *", "FOO /api/titles",
                "GET /api/events?device=%ff", "HEAD /api/titles", "GET /favicon.svg?x=%", "GET /a%0ab", "GET /.%2e/x", "PROPFIND /api/titles")) {
            String answer = RawHttp.send(server.url(), line + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n");
            statuses.put(line, Integer.parseInt(answer.substring(9, 12)));
            assertThat(answer).as(line).doesNotContain("Exception", "org.", "rivo.server");
        }
        assertThat(statuses).allSatisfy((line, status) -> assertThat(status).as(line).isLessThan(500));
    }

    @Test
    void noReportFailsWhateverItHolds() {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-001");
        String progress = "{\"title\":\"siltscope\",\"action\":\"install\",\"state\":\"running\",\"step\":1,\"steps\":1,\"percent\":1,"
                + "\"message\":\"m\",\"at\":\"2026-11-23T08:00:00Z\"%s}";
        int number = 1;
        for (String body : List.of("\"facts\":{\"arch\":null}", "\"facts\":[null]", "\"facts\":{\"\":\"x\"}", "\"facts\":{\"ramGiB\":\"x\"}",
                "\"software\":[null]", "\"present\":[null]", "\"progress\":[null]", "\"fetched\":[null]",
                "\"software\":[{\"name\":null}]", "\"present\":[{\"title\":null}]", "\"facts\":{\"x.\\ud800\":\"\\udfff\"}",
                "\"fetched\":[{\"sha256\":\"x\",\"bytes\":-5},{\"sha256\":null,\"bytes\":1}]",
                "\"present\":[{\"title\":\"siltscope\",\"version\":\"" + "1.".repeat(250) + "\"}]",
                "\"software\":[{\"name\":\"x\",\"version\":\"" + "9".repeat(999) + "\"}]",
                "\"progress\":[" + progress.formatted(",\"version\":\"" + "1".repeat(201) + "\"") + "]",
                "\"progress\":[" + progress.formatted(",\"version\":\"" + "1".repeat(999) + "\"") + "]",
                "\"progress\":[" + progress.formatted("").replace("2026-11", "+999999999-11") + "]",
                "\"progress\":[" + progress.formatted("").replace("2026-11", "-999999999-11") + "]",
                "\"progress\":[" + progress.formatted(",\"exitCode\":99999999999") + "]",
                "\"progress\":[" + progress.formatted("").replace("\"m\"", "\"\\u0000\\ud800\"") + "]")) {
            TestClient.Answer answer = device.report("{\"number\":" + number++ + "," + body + "}");
            assertThat(answer.status()).as(body).isIn(200, 400, 422);
            assertThat(answer.body().toString()).as(body).doesNotContain("Exception", "rivo.");
        }
    }
}
