package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.h2.jdbcx.JdbcDataSource;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.fleet.DeviceParts;
import rivo.server.storage.Database;
import tools.jackson.databind.JsonNode;

/**
 * The server is killed at random moments while devices report, titles are put in, files are dropped in, and drafts are edited and
 * published. After each death everything that was acknowledged has to be there, everything else whole or absent, and the journal to
 * tell of each act.
 */
class SuddenDeathTest {

    private static final int ROUNDS = Integer.getInteger("rivo.deaths", 5);
    private static final int DEVICES = 6;

    @TempDir
    private Path data;
    private final long seed = System.nanoTime();
    private final Random random = new Random(seed);
    private SpawnedServer server;
    private TestClient admin;
    private volatile boolean dying;
    /** What failed before the server did. */
    private final Queue<Throwable> early = new ConcurrentLinkedQueue<>();

    /** What the server has said yes to, and what it was asked without an answer. */
    private final Map<String, Long> reported = new ConcurrentHashMap<>();
    private final Map<String, Long> asked = new ConcurrentHashMap<>();
    private final Set<String> titles = ConcurrentHashMap.newKeySet();
    private final Set<Long> changes = ConcurrentHashMap.newKeySet();
    private final Set<String> contents = ConcurrentHashMap.newKeySet();
    private final Map<String, TestDevice> devices = new TreeMap<>();
    private volatile String upload = "";
    private volatile long uploaded;

    @Test
    void nothingThatWasAcknowledgedIsLost() throws Exception {
        start();
        enrol();
        for (int round = 1; round <= ROUNDS || round <= 3 * ROUNDS && isSomethingMissing(); round++) {
            loadUntilDeath(300 + random.nextInt(2500));
            checkDatabase("round " + round + ", seed " + seed);
            start();
            checkAnswers("round " + round + ", seed " + seed);
        }
        server.kill();
        assertThat(reported.values().stream().mapToLong(Long::longValue).sum()).as("acknowledged reports").isGreaterThan(20L * ROUNDS);
        assertThat(titles.size() + changes.size() + contents.size()).as("acknowledged titles, changes and files").isGreaterThan(ROUNDS);
        assertThat(List.of(titles.size(), changes.size(), contents.size())).as("acknowledged titles, changes and files").allMatch(n -> n > 0);
    }

    /** On a slow machine some rounds may be too short for one of each kind. */
    private boolean isSomethingMissing() {
        return titles.isEmpty() || changes.isEmpty() || contents.isEmpty();
    }

    private void start() throws IOException {
        dying = false;
        server = SpawnedServer.start(data, "400m", "Serial");
        admin = new TestClient(server.url()).signIn();
        devices.replaceAll((name, device) -> device.at(server.url()));
    }

    private void enrol() {
        for (JsonNode row : ask(admin, "GET", "/api/devices?limit=" + DEVICES, null, 200).path("rows")) {
            String id = row.path("id").asString();
            String token = ask(admin, "POST", "/api/devices/" + id + "/token", Map.of(), 200).path("token").asString();
            TestDevice device = TestDevice.withToken(server.url(), id, token);
            assertThat(device.enrol().status()).isEqualTo(201);
            devices.put(row.path("name").asString(), device);
        }
    }

    private static JsonNode ask(TestClient client, String method, String path, @Nullable Object body, Integer... expected) {
        TestClient.Answer answer = client.ask(method, path, body);
        assertThat(answer.status()).as(method + " " + path + ": " + answer.body()).isIn((Object[]) expected);
        return answer.body();
    }

    private static TestClient.Answer report(TestDevice device, long number) {
        return device.report("{\"number\":" + number + ",\"facts\":{\"x.n\":\"" + number + "\"}}");
    }

    /** What goes on until the server is gone. */
    private interface Load {
        void once(TestClient client) throws Exception;
    }

    private void loadUntilDeath(int afterMillis) throws InterruptedException {
        ExecutorService threads = Executors.newCachedThreadPool();
        for (String name : devices.keySet()) {
            run(threads, client -> {
                long number = Math.max(asked.getOrDefault(name, 0L), reported.getOrDefault(name, 0L)) + 1;
                asked.put(name, number);
                if (report(devices.get(name), number).status() == 200) {
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
        server.kill();
        threads.shutdown();
        assertThat(threads.awaitTermination(30, TimeUnit.SECONDS)).isTrue();
        assertThat(early).as("what failed before the server did").isEmpty();
    }

    private void run(ExecutorService threads, Load load) {
        threads.execute(() -> {
            try {
                while (!dying) {
                    load.once(admin);
                }
            } catch (Exception | AssertionError e) {
                if (!dying) {
                    early.add(e);
                }
            }
        });
    }

    private void putTitle(TestClient client, String id) throws Exception {
        Step step = Step.run("Run it", "x", List.of());
        TitleRecord.VariantRecord variant = new TitleRecord.VariantRecord("all", null, false, List.of(), List.of(step), List.of(step), List.of(),
                Presence.inventory("Title " + id));
        TitleRecord record = TitleRecord.of(id, "Title " + id, "Quillbrook", List.of(TitleRecord.ReleaseRecord.of("1.0", List.of(variant))));
        ask(client, "PUT", "/api/titles/" + id, Map.of("revision", 0, "record", record), 200);
        titles.add(id);
    }

    private void publish(TestClient client) throws Exception {
        if (titles.isEmpty()) {
            TimeUnit.MILLISECONDS.sleep(20);
            return;
        }
        String title = List.copyOf(titles).get(random.nextInt(titles.size()));
        JsonNode reach = ask(client, "GET", "/api/reach/" + title, null, 200);
        List<JsonNode> ous = new ArrayList<>();
        reach.findValues("id").forEach(ous::add);
        String ou = ous.get(random.nextInt(Math.min(20, ous.size()))).asString();
        ask(client, "PUT", "/api/draft/edits", Map.of("subject", "title:" + title, "ou", ou, "intent", "required", "binding", false), 200, 422);
        JsonNode draft = ask(client, "GET", "/api/draft", null, 200);
        if (draft.has("rehearsal")) {
            JsonNode published = ask(client, "POST", "/api/draft/publication",
                    Map.of("reason", "under load", "token", draft.at("/rehearsal/token").asString()), 200, 409);
            if (published.has("change")) {
                changes.add(published.path("change").asLong());
            }
        }
    }

    private void upload(TestClient client) throws Exception {
        byte[] file = new byte[200_000];
        new Random(System.nanoTime()).nextBytes(file);
        JsonNode begun = ask(client, "POST", "/api/uploads", Map.of("fileName", "a.bin", "size", file.length), 201);
        upload = begun.path("id").asString();
        uploaded = 0;
        for (int at = 0; at < file.length; at += 50_000) {
            byte[] part = java.util.Arrays.copyOfRange(file, at, at + 50_000);
            ask(client, "PUT", "/api/uploads/" + upload + "/part?offset=" + at, part, 200);
            uploaded = at + part.length;
        }
        String read = upload;
        upload = "";
        ask(client, "POST", "/api/uploads/" + read + "/reading", null, 200);
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
            assertThat(db.sql("select count(*) from documents d where not exists (select 1 from changes c where c.number = d.change_number)")
                    .query(Integer.class).single()).as(when).isZero();
            assertThat(rivo.server.assignment.AssignmentDocument.KIND.read(db).stream().map(one -> one.assignment().include().size()))
                    .as(when + ": assignments are whole").doesNotContain(0);
            assertThat(db.sql("select count(*) from (select at, lag(at) over (order by number) before from journal) where before > at")
                    .query(Integer.class).single()).as(when + ": the journal is in order").isZero();
            for (String name : devices.keySet()) {
                long last = DeviceParts.LAST_NUMBERS.read(db).getOrDefault(devices.get(name).id, 0L);
                assertThat(last).as(when + ": " + name).isBetween(reported.getOrDefault(name, 0L), asked.getOrDefault(name, 0L));
            }
        }
    }

    /** As the one that was started after it says. */
    private void checkAnswers(String when) throws Exception {
        for (String name : devices.keySet()) {
            long acknowledged = reported.getOrDefault(name, 0L);
            if (acknowledged > 0) {
                JsonNode again = report(devices.get(name), acknowledged).body();
                assertThat(again.path("taken").asBoolean()).as(when + ": " + name).isFalse();
                long last = again.path("last").asLong();
                assertThat(ask(admin, "GET", "/api/devices/" + devices.get(name).id, null, 200).at("/facts/x.n").asString())
                        .as(when + ": what it reported last is what is known").isEqualTo(Long.toString(last));
            }
        }
        for (String title : titles) {
            assertThat(ask(admin, "GET", "/api/titles/" + title, null, 200).toString()).as(when).contains("Title " + title);
        }
        for (String hash : contents) {
            Path file = data.resolve("content").resolve(hash);
            assertThat(file).as(when).exists();
            assertThat(HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(file)))).as(when).isEqualTo(hash);
        }
        if (!upload.isEmpty()) {
            assertThat(ask(admin, "GET", "/api/uploads/" + upload, null, 200).path("received").asLong()).as(when).isGreaterThanOrEqualTo(uploaded);
        }
        upload = "";
        for (JsonNode left : ask(admin, "GET", "/api/uploads", null, 200)) {
            ask(admin, "DELETE", "/api/uploads/" + left.path("id").asString(), null, 204);
        }
        assertThat(ask(admin, "GET", "/health", null, 200).path("status").asString()).as(when).isEqualTo("UP");
    }
}
