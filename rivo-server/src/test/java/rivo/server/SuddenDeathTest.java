package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.h2.jdbcx.JdbcDataSource;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Signature;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.storage.Database;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The server is killed at random moments while devices report, titles are put in, files are dropped in, and drafts are edited and
 * published. After each death everything that was acknowledged has to be there, everything else whole or absent, and the journal to
 * tell of each act.
 */
class SuddenDeathTest {

    private static final int ROUNDS = Integer.getInteger("rivo.deaths", 5);
    private static final int DEVICES = 6;
    private static final JsonMapper JSON = new JsonMapper();
    private static final Duration PATIENCE = Duration.ofSeconds(10);

    @TempDir
    private Path data;
    private final long seed = System.nanoTime();
    private final Random random = new Random(seed);
    private Process process;
    private URI url;
    private volatile boolean dying;

    /** What the server has said yes to, and what it was asked without an answer. */
    private final Map<String, Long> reported = new ConcurrentHashMap<>();
    private final Map<String, Long> asked = new ConcurrentHashMap<>();
    private final Set<String> titles = ConcurrentHashMap.newKeySet();
    private final Set<Long> changes = ConcurrentHashMap.newKeySet();
    private final Set<String> contents = ConcurrentHashMap.newKeySet();
    private final Map<String, AgreementKey> keys = new TreeMap<>();
    private final Map<String, String> serverKeys = new TreeMap<>();
    private final Map<String, String> ids = new TreeMap<>();
    private volatile String upload = "";
    private volatile long uploaded;

    /** Answers fail when the server dies, which is what this is about. */
    private final class Client {
        private final CookieManager cookies = new CookieManager();
        private final HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).version(HttpClient.Version.HTTP_1_1).build();

        HttpResponse<byte[]> send(HttpRequest request) throws IOException, InterruptedException {
            return http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        }

        JsonNode ask(String method, String path, @Nullable Object body, int... expected) throws IOException, InterruptedException {
            byte[] bytes = body == null ? new byte[0] : body instanceof byte[] raw ? raw : JSON.writeValueAsBytes(body);
            String token = cookies.getCookieStore().getCookies().stream().filter(c -> c.getName().equals("XSRF-TOKEN"))
                    .map(HttpCookie::getValue).findFirst().orElse("none");
            HttpResponse<byte[]> answer = send(HttpRequest.newBuilder(url.resolve(path)).timeout(PATIENCE).header("X-XSRF-TOKEN", token)
                    .header("Content-Type", body instanceof byte[] ? "application/octet-stream" : "application/json")
                    .method(method, HttpRequest.BodyPublishers.ofByteArray(bytes)).build());
            for (int status : expected) {
                if (answer.statusCode() == status) {
                    return answer.body().length == 0 ? JSON.nullNode() : JSON.readTree(answer.body());
                }
            }
            throw new IOException(method + " " + path + ": " + answer.statusCode() + " " + new String(answer.body(), StandardCharsets.UTF_8));
        }

        Client signIn() throws IOException, InterruptedException {
            ask("POST", "/api/session", Map.of("account", DemoOrganisation.ADMINISTRATOR, "password", TestServer.PASSWORD), 200);
            return this;
        }
    }

    @Test
    void nothingThatWasAcknowledgedIsLost() throws Exception {
        start();
        enrol();
        for (int round = 1; round <= ROUNDS; round++) {
            loadUntilDeath(300 + random.nextInt(2500));
            checkDatabase("round " + round + ", seed " + seed);
            start();
            checkAnswers("round " + round + ", seed " + seed);
        }
        process.destroyForcibly().waitFor();
        assertThat(reported.values().stream().mapToLong(Long::longValue).sum()).as("acknowledged reports").isGreaterThan(20L * ROUNDS);
        assertThat(titles.size() + changes.size() + contents.size()).as("acknowledged titles, changes and files").isGreaterThan(ROUNDS);
    }

    private void start() throws IOException {
        dying = false;
        process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:TieredStopAtLevel=1", "-Xmx400m",
                "-cp", System.getProperty("java.class.path"), KilledServer.class.getName(), data.toString()).redirectErrorStream(true).start();
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        List<String> said = new ArrayList<>();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            said.add(line);
            if (line.startsWith("at ")) {
                url = URI.create(line.substring(3));
                Thread reader = new Thread(() -> out.lines().forEach(l -> { }), "what it says");
                reader.setDaemon(true);
                reader.start();
                return;
            }
        }
        throw new IllegalStateException("it did not start: " + String.join("\n", said));
    }

    private void enrol() throws Exception {
        Client admin = new Client().signIn();
        for (JsonNode row : admin.ask("GET", "/api/devices?limit=" + DEVICES, null, 200).path("rows")) {
            String name = row.path("name").asString();
            String token = admin.ask("POST", "/api/devices/" + row.path("id").asString() + "/token", Map.of(), 200).path("token").asString();
            EnrolmentToken told = EnrolmentToken.parse(token).orElseThrow();
            AgreementKey key = AgreementKey.random();
            byte[] body = JSON.writeValueAsBytes(Map.of("publicKey", key.publicKey()));
            HttpRequest request = signed("POST", "/device/v2/enrolments", body, MessageKey.ofEnrolment(key, told),
                    new KeyId(told.key().publicKey(), MessageKey.tag(told.serverPublicKey())));
            assertThat(admin.send(request).statusCode()).isEqualTo(201);
            keys.put(name, key);
            serverKeys.put(name, told.serverPublicKey());
            ids.put(name, row.path("id").asString());
        }
    }

    private HttpRequest signed(String method, String path, byte[] body, MessageKey key, KeyId as) {
        String digest = Signature.digest(body);
        Signature signature = Signature.sign(key, as, Instant.now(), method, path, digest);
        return HttpRequest.newBuilder(url.resolve(path)).timeout(PATIENCE).header("Signature-Input", signature.inputHeader(true))
                .header("Signature", signature.valueHeader()).header("Content-Digest", digest).header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofByteArray(body)).build();
    }

    private HttpResponse<byte[]> report(Client client, String name, long number) throws IOException, InterruptedException {
        byte[] body = JSON.writeValueAsBytes(Map.of("number", number, "facts", Map.of("x.n", Long.toString(number))));
        return client.send(signed("POST", "/device/v2/reports", body, MessageKey.ofDevice(keys.get(name), serverKeys.get(name)),
                new KeyId(ids.get(name), MessageKey.tag(serverKeys.get(name)))));
    }

    /** What goes on until the server is gone. */
    private interface Load {
        void once(Client client) throws Exception;
    }

    private void loadUntilDeath(int afterMillis) throws InterruptedException {
        ExecutorService threads = Executors.newCachedThreadPool();
        for (String name : keys.keySet()) {
            run(threads, client -> {
                long number = Math.max(asked.getOrDefault(name, 0L), reported.getOrDefault(name, 0L)) + 1;
                asked.put(name, number);
                if (report(client, name, number).statusCode() == 200) {
                    reported.put(name, number);
                }
            });
        }
        int first = titles.size();
        int[] next = {first};
        run(threads, client -> putTitle(client, "t" + System.nanoTime() + "-" + next[0]++));
        run(threads, this::publish);
        run(threads, this::upload);
        TimeUnit.MILLISECONDS.sleep(afterMillis);
        dying = true;
        process.destroyForcibly().waitFor();
        threads.shutdown();
        assertThat(threads.awaitTermination(30, TimeUnit.SECONDS)).isTrue();
    }

    private void run(ExecutorService threads, Load load) {
        threads.submit(() -> {
            try {
                Client client = new Client().signIn();
                while (!dying) {
                    load.once(client);
                }
            } catch (Exception e) {
                if (!dying) {
                    throw new IllegalStateException("it failed before the server did", e);
                }
            }
            return null;
        });
    }

    private void putTitle(Client client, String id) throws Exception {
        Map<String, Object> step = Map.of("kind", "run", "command", "x", "limitSeconds", 60);
        Map<String, Object> variant = Map.of("id", "all", "install", List.of(step), "remove", List.of(step));
        Map<String, Object> record = Map.of("id", id, "name", "Title " + id, "maker", "Quillbrook", "releases",
                List.of(Map.of("version", "1.0", "offered", true, "variants", List.of(variant))));
        client.ask("PUT", "/api/titles/" + id, Map.of("revision", 0, "record", record), 200);
        titles.add(id);
    }

    private void publish(Client client) throws Exception {
        if (titles.isEmpty()) {
            TimeUnit.MILLISECONDS.sleep(20);
            return;
        }
        String title = List.copyOf(titles).get(random.nextInt(titles.size()));
        JsonNode reach = client.ask("GET", "/api/reach/" + title, null, 200);
        List<JsonNode> ous = new ArrayList<>();
        reach.findValues("id").forEach(ous::add);
        String ou = ous.get(random.nextInt(Math.min(20, ous.size()))).asString();
        client.ask("PUT", "/api/draft/edits", Map.of("subject", "title:" + title, "ou", ou, "intent", "required", "binding", false), 200, 422);
        JsonNode draft = client.ask("GET", "/api/draft", null, 200);
        if (draft.has("rehearsal")) {
            JsonNode published = client.ask("POST", "/api/draft/publication",
                    Map.of("reason", "under load", "token", draft.at("/rehearsal/token").asString()), 200, 409);
            if (published.has("change")) {
                changes.add(published.path("change").asLong());
            }
        }
    }

    private void upload(Client client) throws Exception {
        byte[] file = new byte[200_000];
        new Random(System.nanoTime()).nextBytes(file);
        JsonNode begun = client.ask("POST", "/api/uploads", Map.of("fileName", "a.bin", "size", file.length), 201);
        upload = begun.path("id").asString();
        uploaded = 0;
        for (int at = 0; at < file.length; at += 50_000) {
            byte[] part = java.util.Arrays.copyOfRange(file, at, at + 50_000);
            client.ask("PUT", "/api/uploads/" + upload + "/part?offset=" + at, part, 200);
            uploaded = at + part.length;
        }
        String read = upload;
        upload = "";
        client.ask("POST", "/api/uploads/" + read + "/reading", null, 200);
        contents.add(HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(file)));
    }

    /** As the dead server left it. */
    private void checkDatabase(String when) throws Exception {
        JdbcDataSource source = new JdbcDataSource();
        source.setURL(Database.url(data));
        try (var held = source.getConnection()) {
            JdbcClient db = JdbcClient.create(new org.springframework.jdbc.datasource.SingleConnectionDataSource(held, true));
            Set<String> there = new TreeSet<>(db.sql("select id from titles").query(String.class).list());
            assertThat(there).as(when).containsAll(titles);
            List<String> added = db.sql("select subject from journal where kind = 'title-added' order by number").query(String.class).list();
            assertThat(added).as(when).doesNotHaveDuplicates().hasSameElementsAs(there.stream().map(id -> "title:" + id).toList());
            assertThat(db.sql("select count(*) from titles t where not exists (select 1 from variants v where v.title = t.id)")
                    .query(Integer.class).single()).as(when + ": titles are whole").isZero();
            List<Long> published = db.sql("select number from changes order by number").query(Long.class).list();
            assertThat(published).as(when).containsAll(changes).isEqualTo(java.util.stream.LongStream.rangeClosed(1, published.size()).boxed().toList());
            assertThat(db.sql("select subject from journal where kind = 'published' order by number").query(String.class).list()).as(when)
                    .isEqualTo(published.stream().map(n -> "change:" + n).toList());
            assertThat(db.sql("select count(*) from assignments a where not exists (select 1 from changes c where c.number = a.change_number) "
                    + "or not exists (select 1 from assignment_ous o where o.assignment = a.id)").query(Integer.class).single()).as(when).isZero();
            assertThat(db.sql("select count(*) from (select at, lag(at) over (order by number) before from journal) where before > at")
                    .query(Integer.class).single()).as(when + ": the journal is in order").isZero();
            for (String name : keys.keySet()) {
                long last = db.sql("select last_number from device_reports where device = ?").params(ids.get(name)).query(Long.class).optional()
                        .orElse(0L);
                assertThat(last).as(when + ": " + name).isBetween(reported.getOrDefault(name, 0L), asked.getOrDefault(name, 0L));
            }
        }
    }

    /** As the one that was started after it says. */
    private void checkAnswers(String when) throws Exception {
        Client admin = new Client().signIn();
        for (String name : keys.keySet()) {
            long acknowledged = reported.getOrDefault(name, 0L);
            if (acknowledged > 0) {
                JsonNode again = JSON.readTree(report(admin, name, acknowledged).body());
                assertThat(again.path("taken").asBoolean()).as(when + ": " + name).isFalse();
                long last = again.path("last").asLong();
                assertThat(admin.ask("GET", "/api/devices/" + ids.get(name), null, 200).at("/facts/x.n").asString())
                        .as(when + ": what it reported last is what is known").isEqualTo(Long.toString(last));
            }
        }
        for (String title : titles) {
            assertThat(admin.ask("GET", "/api/titles/" + title, null, 200).toString()).as(when).contains("Title " + title);
        }
        for (String hash : contents) {
            Path file = data.resolve("content").resolve(hash);
            assertThat(file).as(when).exists();
            assertThat(HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(file)))).as(when).isEqualTo(hash);
        }
        if (!upload.isEmpty()) {
            assertThat(admin.ask("GET", "/api/uploads/" + upload, null, 200).path("received").asLong()).as(when).isGreaterThanOrEqualTo(uploaded);
        }
        upload = "";
        for (JsonNode left : admin.ask("GET", "/api/uploads", null, 200)) {
            admin.ask("DELETE", "/api/uploads/" + left.path("id").asString(), null, 204);
        }
        assertThat(admin.ask("GET", "/health", null, 200).path("status").asString()).as(when).isEqualTo("UP");
    }
}
