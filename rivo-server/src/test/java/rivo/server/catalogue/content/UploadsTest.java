package rivo.server.catalogue.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.ServerSettings;
import rivo.server.TestClient.Answer;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.catalogue.proposal.TitleFiles;
import rivo.server.web.ApiException;
import tools.jackson.databind.JsonNode;

/** Files on their way in, as the front end sends them. */
class UploadsTest extends ServerTest {

    private static final Path SAMPLES = Path.of("..", "samples");
    private static final String MSI = "siltscope-lab-4.4.0-x64.msi";

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
        TestTitles.add(server, "graphkit", "Graphkit runtime");
    }

    private static String begin(String name, long size) {
        Answer answer = server.ask("POST", "/api/uploads", Map.of("fileName", name, "size", size));
        assertThat(answer.status()).isEqualTo(201);
        return answer.body().path("id").asString();
    }

    private static Answer part(String id, long offset, byte[] bytes) {
        return server.ask("PUT", "/api/uploads/" + id + "/part?offset=" + offset, bytes);
    }

    private static Answer send(String name, byte[] bytes) {
        String id = begin(name, bytes.length);
        part(id, 0, bytes);
        return server.ask("POST", "/api/uploads/" + id + "/reading", null);
    }

    private static byte[] sample(String name) throws IOException {
        return Files.readAllBytes(SAMPLES.resolve(name));
    }

    @Test
    void aFileComesInPartsAndIsRead() throws IOException {
        byte[] msi = sample(MSI);
        String id = begin(MSI, msi.length);
        part(id, 0, Arrays.copyOf(msi, 5000));
        Answer early = server.ask("POST", "/api/uploads/" + id + "/reading", null);
        assertThat(early.code()).isEqualTo("not-whole");
        assertThat(server.ask("GET", "/api/uploads/" + id, null).body().path("received").asInt()).isEqualTo(5000);
        part(id, 5000, Arrays.copyOfRange(msi, 5000, msi.length));
        JsonNode read = server.ask("POST", "/api/uploads/" + id + "/reading", null).body();
        assertThat(read.at("/title/id").asString()).isEqualTo("siltscope");
        assertThat(read.path("version").asString()).isEqualTo("4.4.0");
        assertThat(server.ask("GET", "/api/uploads/" + id, null).code()).isEqualTo("no-upload");
    }

    @Test
    void aPartThatIsCutOffInTheMiddleIsGoneOnWith() throws Exception {
        byte[] msi = sample(MSI);
        String id = begin(MSI, msi.length);
        URI url = server.url();
        try (Socket socket = new Socket(url.getHost(), url.getPort())) {
            String head = "PUT /api/uploads/" + id + "/part?offset=0 HTTP/1.1\r\nHost: " + url.getAuthority() + "\r\n"
                    + server.cookieHeaders() + "Content-Type: application/octet-stream\r\nContent-Length: " + msi.length + "\r\n\r\n";
            socket.getOutputStream().write(head.getBytes(StandardCharsets.US_ASCII));
            socket.getOutputStream().write(msi, 0, 7000);
            socket.getOutputStream().flush();
            Thread.sleep(300);
        }
        long received = received(id);
        for (int i = 0; i < 50 && received == 0; i++) {
            Thread.sleep(100);
            received = received(id);
        }
        assertThat(received).as("what had arrived is kept").isBetween(1L, 7000L);
        part(id, received, Arrays.copyOfRange(msi, (int) received, msi.length));
        assertThat(server.ask("POST", "/api/uploads/" + id + "/reading", null).body().path("version").asString())
                .isEqualTo("4.4.0");
    }

    private static long received(String id) {
        return server.ask("GET", "/api/uploads/" + id, null).body().path("received").asLong();
    }

    @Test
    void aPartThatDoesNotFollowTheLastIsRefusedAndNothingIsLost() {
        String id = begin("a.bin", 10);
        part(id, 0, new byte[4]);
        for (long offset : new long[] {6, 5, 3, 2, 0}) {
            Answer answer = part(id, offset, new byte[] {9, 9});
            assertThat(answer.code()).as("at " + offset).isEqualTo("other-offset");
            assertThat(answer.body().path("detail").asString()).startsWith("So far 4 bytes have arrived");
        }
        assertThat(server.ask("GET", "/api/uploads/" + id, null).body().path("received").asInt()).isEqualTo(4);
        assertThat(part(id, 4, new byte[6]).body().path("received").asInt()).isEqualTo(10);
        assertThat(part(id, 10, new byte[1]).code()).isEqualTo("too-much");
    }

    @Test
    void anEmptyOrEndlessFileAndAStrangeNameAreRefused() {
        assertThat(server.ask("POST", "/api/uploads", Map.of("fileName", "a.exe", "size", 0)).code())
                .isEqualTo("empty-file");
        assertThat(server.ask("POST", "/api/uploads", Map.of("fileName", "a.exe", "size", Long.MAX_VALUE)).code())
                .isEqualTo("too-large");
        assertThat(server.ask("POST", "/api/uploads", Map.of("fileName", "../\u0000", "size", 5)).code())
                .isEqualTo("bad-text");
        assertThat(server.ask("POST", "/api/uploads", Map.of("fileName", "../\u0007", "size", 5)).code())
                .isEqualTo("bad-name");
        assertThat(server.ask("POST", "/api/uploads", Map.of("size", 5)).code()).isEqualTo("bad-name");
        assertThat(server.ask("GET", "/api/uploads/..%2F..%2Frivo", null).status()).isBetween(400, 404);
        assertThat(server.ask("POST", "/api/uploads", Map.of("fileName", "a\"; $(reboot).exe", "size", 5)).body()
                .path("fileName").asString()).as("it is written into commands").isEqualTo("a_; _(reboot).exe");
    }

    @Test
    void aDamagedInstallerIsRefusedAndLeavesNothingBehind() throws IOException {
        Answer answer = send("cut.msi", Arrays.copyOf(sample(MSI), 3000));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("damaged-file");
        assertThat(answer.body().path("detail").asString()).startsWith("cut.msi is a Windows Installer database, but "
                + "damaged or cut short");
        assertThat(server.ask("GET", "/api/uploads", null).body().toString()).doesNotContain("cut.msi");
    }

    @Test
    void aCancelledFileIsGone() {
        String id = begin("a.bin", 10);
        assertThat(server.ask("DELETE", "/api/uploads/" + id, null).status()).isEqualTo(204);
        assertThat(part(id, 0, new byte[4]).code()).isEqualTo("no-upload");
    }

    @Test
    void whatAFileNeedsIsFoundInTheCatalogue() throws IOException {
        JsonNode read = send("tidewatch_2.1.0-1_amd64.deb", sample("tidewatch_2.1.0-1_amd64.deb")).body();
        assertThat(read.at("/title/id").asString()).isEqualTo("tidewatch");
        assertThat(read.path("revision").asInt()).as("it is new").isZero();
        assertThat(read.at("/title/releases/0/needs/0/title").asString()).isEqualTo("graphkit");
        assertThat(read.at("/title/releases/0/needs/0/min").asString()).isEqualTo("2.3");
        assertThat(read.at("/title/releases/0/offered").asBoolean()).isFalse();
        assertThat(read.at("/title/releases/0/variants/0/remove/0/command").asString())
                .isEqualTo("apt-get -y remove tidewatch");
    }

    @Test
    void anotherTitlesInstallerDroppedOnATitleIsPointedOut() throws IOException {
        byte[] deb = sample("tidewatch_2.1.0-1_amd64.deb");
        String id = begin("tidewatch.deb", deb.length);
        part(id, 0, deb);
        JsonNode read = server.ask("POST", "/api/uploads/" + id + "/reading?title=siltscope", null).body();
        assertThat(read.path("findings").toString()).contains("It calls itself Tidewatch, not Siltscope Lab.");
    }

    @Test
    void aTitleGoesOutAsOneFileAndComesInAgain() throws Exception {
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        server.bean(TitleFiles.class).write("siltscope", file);
        Answer answer = send("siltscope.zip", file.toByteArray());
        assertThat(answer.body().path("format").asString()).isEqualTo("a title file");
        assertThat(answer.body().at("/title/releases").size()).as("those that are there stay").isEqualTo(2);
        assertThat(answer.body().path("findings").toString()).contains("4.2.0 is in the catalogue already");
    }

    @Test
    void anExportedTitleIsWhatTheSchemaSays() throws Exception {
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        server.bean(TitleFiles.class).write("siltscope", file);
        String manifest = null;
        try (var zip = new java.util.zip.ZipInputStream(new ByteArrayInputStream(file.toByteArray()))) {
            assertThat(zip.getNextEntry().getName()).isEqualTo("manifest.json");
            manifest = new String(zip.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        }
        var schema = com.networknt.schema.JsonSchemaFactory.getInstance(com.networknt.schema.SpecVersion.VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("..", "docs", "title-file.schema.json")));
        assertThat(schema.validate(manifest, com.networknt.schema.InputFormat.JSON)).isEmpty();
        assertThat(schema.validate(manifest.replace("\"run\"", "\"fly\""), com.networknt.schema.InputFormat.JSON))
                .isNotEmpty();
    }

    @Test
    void aTitleFileWithOtherContentThanItSaysIsRefused() throws Exception {
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        server.bean(TitleFiles.class).write("siltscope", file);
        ByteArrayOutputStream forged = new ByteArrayOutputStream();
        try (var in = new java.util.zip.ZipInputStream(new ByteArrayInputStream(file.toByteArray()));
                var out = new java.util.zip.ZipOutputStream(forged)) {
            for (var entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                out.putNextEntry(new java.util.zip.ZipEntry(entry.getName()));
                out.write(entry.getName().startsWith("content/") ? new byte[] {1, 2, 3} : in.readAllBytes());
                out.closeEntry();
            }
        }
        Answer answer = send("forged.zip", forged.toByteArray());
        assertThat(answer.code()).isEqualTo("damaged-file");
        assertThat(answer.body().path("detail").asString()).contains("is not what the manifest says");
    }

    @Test
    void aTitleFileThatMakesNoSenseIsRefusedBeforeAnythingIsKept() throws Exception {
        for (String title : List.of("{\"id\":\"x\",\"name\":\"X\",\"maker\":\"\",\"releases\":[{\"variants\":[]}]}",
                "{\"id\":\"../x\",\"name\":\"X\",\"maker\":\"\"}", "{\"name\":\"X\"}", "[]",
                "{\"id\":\"x\",\"name\":\"X\",\"maker\":\"\",\"releases\":[{\"version\":\"1\",\"variants\":[{\"id\":\"all\","
                        + "\"contents\":[{\"size\":5,\"fileName\":\"a\"}]}]}]}")) {
            ByteArrayOutputStream file = new ByteArrayOutputStream();
            try (var out = new java.util.zip.ZipOutputStream(file)) {
                out.putNextEntry(new java.util.zip.ZipEntry("manifest.json"));
                out.write(("{\"format\":\"rivo-title\",\"formatVersion\":1,\"title\":" + title + "}").getBytes(
                        java.nio.charset.StandardCharsets.UTF_8));
                out.closeEntry();
            }
            assertThat(send("bad.zip", file.toByteArray()).status()).as(title).isEqualTo(422);
        }
    }

    private static byte[] titleFile(String manifest, String... entries) throws IOException {
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        try (var out = new java.util.zip.ZipOutputStream(file)) {
            out.putNextEntry(new java.util.zip.ZipEntry("manifest.json"));
            out.write(("{\"format\":\"rivo-title\",\"formatVersion\":1,\"title\":" + manifest + "}").getBytes(
                    java.nio.charset.StandardCharsets.UTF_8));
            for (String entry : entries) {
                out.putNextEntry(new java.util.zip.ZipEntry("content/" + entry));
                for (int i = 0; i < 300; i++) {
                    out.write(new byte[1 << 20]);
                }
            }
        }
        return file.toByteArray();
    }

    private static String title(String contents, String relations) {
        return "{\"id\":\"forged\",\"name\":\"Forged\",\"maker\":\"\",\"releases\":[{\"version\":\"1\",\"offered\":true," + relations
                + "\"variants\":[{\"id\":\"all\",\"asPerson\":false,\"contents\":[" + contents + "]}]}]}";
    }

    private long kept() throws IOException {
        try (var files = Files.walk(data.resolve("content"))) {
            return files.filter(Files::isRegularFile).mapToLong(f -> f.toFile().length()).sum();
        }
    }

    @Test
    void aTitleFileThatUnpacksToManyTimesItsSizeWritesNothing() throws Exception {
        String hash = "ab".repeat(32);
        for (long told : new long[] {300L << 20, 5, 1L << 40}) {
            byte[] bomb = titleFile(title("{\"sha256\":\"" + hash + "\",\"size\":" + told + ",\"fileName\":\"a.bin\"}", ""), hash);
            assertThat(bomb.length).isLessThan(1 << 20);
            long before = kept();
            Answer answer = send("bomb.zip", bomb);
            assertThat(answer.status()).as("told " + told).isIn(422, 507);
            assertThat(kept()).as("told " + told).isEqualTo(before);
        }
    }

    @Test
    void aTitleFilePassesTheChecksOfATitleTypedIn() throws Exception {
        String hash = "ab".repeat(32);
        for (String name : List.of("../../etc/cron.d/x", "a/b", "a\\\\b", "..", "a\\u0000", "a\\\"; reboot", "$(reboot)", "C:x", "x".repeat(201))) {
            Answer answer = send("forged.zip", titleFile(title("{\"sha256\":\"" + hash + "\",\"size\":1,\"fileName\":\"" + name + "\"}", "")));
            assertThat(answer.status()).as(name).isEqualTo(422);
            assertThat(answer.code()).as(name).isIn("bad-name", "bad-text");
        }
        for (String relations : List.of("\"needs\":[{\"title\":null}],", "\"needs\":[null],", "\"replaces\":[{}],", "\"note\":\"" + "y".repeat(2001)
                + "\",", "\"needs\":[{\"title\":\"" + "y".repeat(300) + "\"}],")) {
            Answer answer = send("forged.zip", titleFile(title("", relations)));
            assertThat(answer.status()).as(relations).isEqualTo(422);
            assertThat(answer.body().toString()).doesNotContain("Exception", "rivo.");
        }
    }

    @Test
    void oneUploadIsReadOnceAtATime() throws Exception {
        byte[] file = new byte[3 << 20];
        new java.util.Random(7).nextBytes(file);
        String id = begin("a.bin", file.length);
        part(id, 0, file);
        var threads = java.util.concurrent.Executors.newFixedThreadPool(8);
        List<java.util.concurrent.Future<Answer>> readings = new java.util.ArrayList<>();
        for (int i = 0; i < 7; i++) {
            readings.add(threads.submit(() -> server.ask("POST", "/api/uploads/" + id + "/reading", null)));
        }
        readings.add(threads.submit(() -> server.ask("DELETE", "/api/uploads/" + id, null)));
        List<Integer> statuses = new java.util.ArrayList<>();
        for (var reading : readings) {
            statuses.add(reading.get().status());
        }
        threads.shutdown();
        assertThat(statuses).allMatch(status -> List.of(200, 204, 404, 409, 503).contains(status));
        assertThat(statuses.stream().filter(status -> status == 200 || status == 204).count()).isEqualTo(1);
    }

    @Test
    void noMoreUploadsBeginAtOnceThanMayBeOpen() throws Exception {
        server.ask("GET", "/api/uploads", null).body().forEach(u -> server.ask("DELETE", "/api/uploads/" + u.path("id").asString(), null));
        var threads = java.util.concurrent.Executors.newFixedThreadPool(30);
        List<java.util.concurrent.Future<Answer>> begun = new java.util.ArrayList<>();
        for (int i = 0; i < 40; i++) {
            int n = i;
            begun.add(threads.submit(() -> server.ask("POST", "/api/uploads", Map.of("fileName", n + ".bin", "size", 5))));
        }
        int taken = 0;
        for (var one : begun) {
            taken += one.get().status() == 201 ? 1 : 0;
        }
        threads.shutdown();
        assertThat(taken).isEqualTo(20);
        server.ask("GET", "/api/uploads", null).body().forEach(u -> server.ask("DELETE", "/api/uploads/" + u.path("id").asString(), null));
    }

    @Test
    void aSurrogateWithoutItsPairIsNoName() {
        Answer answer = server.ask("POST", "/api/uploads", "{\"fileName\":\"a\\ud800.bin\",\"size\":5}".getBytes(
                java.nio.charset.StandardCharsets.US_ASCII));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("bad-text");
    }

    @Test
    void whatAKillLeftHalfWrittenStopsNobody(@TempDir Path other) throws IOException {
        Uploads uploads = new Uploads(ServerSettings.at(other),
                Clock.fixed(Instant.now(), ZoneOffset.UTC));
        Files.writeString(other.resolve("uploads").resolve("ab".repeat(16) + ".json"), "{\"id\":\"ab");
        Files.writeString(other.resolve("uploads").resolve("cd".repeat(16) + ".part"), "half");
        assertThat(uploads.begin("imara", "a.bin", 10).received()).isZero();
        assertThat(uploads.of("imara")).hasSize(1);
        new Uploads(ServerSettings.at(other),
                Clock.fixed(Instant.now().plus(Duration.ofDays(4)), ZoneOffset.UTC)).forgetOld();
        assertThat(other.resolve("uploads")).isEmptyDirectory();
    }

    @Test
    void whatNobodyFinishesIsCleanedUpAfterThreeDays(@TempDir Path other) throws IOException {
        ServerSettings settings = ServerSettings.at(other);
        Instant begun = Instant.parse("2026-11-20T08:00:00Z");
        Uploads uploads = new Uploads(settings, Clock.fixed(begun, ZoneOffset.UTC));
        String id = uploads.begin("imara", "a.bin", 10).id();
        uploads.append(id, "imara", 0, new ByteArrayInputStream(new byte[4]));
        new Uploads(settings, Clock.fixed(begun.plus(Duration.ofDays(2)), ZoneOffset.UTC)).forgetOld();
        assertThat(uploads.get(id, "imara").received()).isEqualTo(4);
        assertThatThrownBy(() -> uploads.get(id, "somebody else")).isInstanceOf(ApiException.class);
        new Uploads(settings, Clock.fixed(begun.plus(Duration.ofDays(4)), ZoneOffset.UTC)).forgetOld();
        assertThat(other.resolve("uploads")).isEmptyDirectory();
    }
}
