package rivo.server.notice;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.User;
import rivo.server.TestClient;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SnapshotReader;
import rivo.server.live.Told;
import rivo.server.live.Topics;
import tools.jackson.databind.JsonNode;

/** What people are told and asked: from the assignment to the device, from the device to the shelf, and what of their answers counts. */
class NoticesTest {

    private static final String PERSON = "mirko.colddale";
    @TempDir
    private static Path data;
    private static TestServer server;
    private static TestDevice device;
    private static String person;
    private static long number;
    private static int next;

    private final TestClient own = new TestClient(server.url());
    private String title;
    private String notice;

    @BeforeAll
    static void prepare() {
        server = TestServer.start(data, "--rivo.reports.a-minute=1000").signIn();
        User user = server.bean(CurrentSnapshot.class).now().estate().users().all().stream().filter(u -> u.name().equals(PERSON)).findFirst().orElseThrow();
        Device one = server.bean(CurrentSnapshot.class).now().estate().devices().all().stream().filter(d -> d.people().contains(user.id())).findFirst().orElseThrow();
        device = TestDevice.enrolled(server, one.name());
        person = user.id();
    }

    @AfterAll
    static void stopServer() {
        server.close();
    }

    @BeforeEach
    void signIn() {
        assertThat(own.ask("POST", "/api/shelf/session", Map.of("account", PERSON, "password", TestServer.PASSWORD)).status()).isEqualTo(200);
        title = "told-" + ++next;
        notice = "n" + next;
        report("\"signedIn\":[\"" + PERSON + "\"]");
    }

    @AfterEach
    void nothingStaysOpen() {
        report("\"notices\":[" + told("over", "") + "]");
        server.ask("DELETE", "/api/quiet-hours", null);
    }

    private static JsonNode report(String rest) {
        Answer answer = device.report("{\"number\":" + ++number + "," + rest + "}");
        assertThat(answer.status()).as(rest).isEqualTo(200);
        return answer.body();
    }

    private void assign(Map<String, Object> more) {
        TestTitles.add(server, title, "Told " + next);
        Map<String, Object> document = new HashMap<>(Map.of("id", title, "seq", 0, "subject", "title:" + title, "intent", "required", "follows", "device", "include",
                List.of("device:" + device.id)));
        document.putAll(more);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/" + title, Map.of("revision", 0, "document", document)).status()).isEqualTo(200);
        assertThat(server.publish("told").status()).isEqualTo(200);
    }

    private JsonNode courtesy() {
        return device.work().body().path("jobs").valueStream().filter(job -> job.path("title").asString().equals(title)).findFirst().orElseThrow().path("courtesy");
    }

    private static List<String> kinds(JsonNode courtesy) {
        return courtesy.path("notices").valueStream().map(one -> one.path("kind").asString()).toList();
    }

    private String told(String state, String more) {
        return "{\"notice\":\"" + notice + "\",\"kind\":\"restart\",\"titles\":[\"" + title + "\"],\"person\":\"" + person + "\",\"state\":\"" + state
                + "\",\"at\":\"2026-11-29T08:00:00Z\"" + more + "}";
    }

    private void asks() {
        report("\"notices\":[" + told("shown", ",\"left\":3,\"last\":\"" + in(8) + "\"") + "]");
    }

    private static String in(int hours) {
        return Instant.now().plus(hours, ChronoUnit.HOURS).truncatedTo(ChronoUnit.SECONDS).toString();
    }

    private List<JsonNode> onShelf() {
        return own.ask("GET", "/api/shelf").body().path("notices").valueStream().filter(one -> one.path("notice").asString().equals(notice)).toList();
    }

    private Answer says(String answer, @Nullable String until) {
        Map<String, Object> said = new HashMap<>(Map.of("answer", answer));
        said.computeIfAbsent("until", key -> until);
        return own.ask("PUT", "/api/shelf/notices/" + device.id + "/" + notice, said);
    }

    private static List<String> lines() {
        return server.ask("GET", "/api/devices/" + device.id + "/notices", null).body().valueStream().map(one -> one.path("line").asString()).toList();
    }

    @Test
    void whereNothingIsSaidTheEndAndFailuresAreToldAndARestartIsAskedFor() {
        assign(Map.of());
        JsonNode courtesy = courtesy();
        assertThat(kinds(courtesy)).containsExactly("done", "failed", "restart");
        assertThat(courtesy.path("notices").get(0).path("words").path("en").asString()).isEqualTo("Told " + next + " 4.2.0 is installed.");
        assertThat(courtesy.path("notices").get(0).path("words").path("de").asString()).isEqualTo("Told " + next + " 4.2.0 ist installiert.");
        assertThat(courtesy.path("notices").get(2).path("lastWords").path("en").asString()).contains("restarts at {time}").contains("what is not saved is lost");
        assertThat(courtesy.path("restart").toString()).isEqualTo("{\"way\":\"ask\",\"times\":3,\"withinSeconds\":28800,\"countdownSeconds\":900}");
        assertThat(courtesy.path("signOut").path("way").asString()).isEqualTo("wait");
    }

    @Test
    void whatTheAssignmentSaysIsTold() {
        assign(Map.of("courtesy", Map.of("tell", Map.of("before", List.of("P1D", "PT1H"), "start", true, "done", false),
                "restart", Map.of("way", "now"), "signOut", Map.of("way", "ask", "defer", Map.of("times", 1, "until", "PT30M")))));
        JsonNode courtesy = courtesy();
        assertThat(kinds(courtesy)).containsExactly("coming", "coming", "start", "failed", "restart");
        assertThat(courtesy.path("notices").valueStream().map(one -> one.path("beforeSeconds").asInt()).toList()).containsExactly(86_400, 3600, 0, 0, 0);
        assertThat(courtesy.path("notices").get(0).path("words").path("en").asString()).isEqualTo("Told " + next
                + " 4.2.0 will be installed on {time}. It takes up to 20 min.");
        assertThat(courtesy.path("restart").toString()).isEqualTo("{\"way\":\"now\",\"times\":3,\"withinSeconds\":28800,\"countdownSeconds\":300}");
        assertThat(courtesy.path("signOut").toString()).isEqualTo("{\"way\":\"ask\",\"times\":1,\"withinSeconds\":1800,\"countdownSeconds\":900}");
    }

    @Test
    void quietlyOnlyWhatAsksIsSaid() {
        assign(Map.of("courtesy", Map.of("quiet", true, "tell", Map.of("before", List.of("P1D"), "start", true))));
        assertThat(kinds(courtesy())).containsExactly("restart");
    }

    @Test
    void whereNobodyIsAskedForARestartNothingIsSaidOfIt() {
        assign(Map.of("courtesy", Map.of("restart", Map.of("way", "none"))));
        assertThat(kinds(courtesy())).containsExactly("done", "failed");
    }

    @Test
    void aRestartIsPutOffOnTheShelfHeardByTheDeviceAndDone() {
        assign(Map.of());
        asks();
        assertThat(onShelf()).hasSize(1);
        assertThat(onShelf().get(0).path("words").path("en").asString()).startsWith("Told " + next + " is ready once this computer has restarted.");
        assertThat(onShelf().get(0).path("left").asInt()).isEqualTo(3);
        String later = in(2);
        String etag = device.work().header("ETag");
        assertThat(says("later", later).status()).isEqualTo(204);
        assertThat(says("later", later).status()).as("twice").isEqualTo(204);
        assertThat(onShelf().get(0).path("said").asString()).isEqualTo("later");
        Answer work = device.ask("GET", "/device/v2/work", null, Map.of("If-None-Match", etag));
        assertThat(work.status()).as("there is something new").isEqualTo(200);
        assertThat(work.body().path("answers").toString()).isEqualTo("[{\"notice\":\"" + notice + "\",\"answer\":\"later\",\"until\":\"" + later + "\",\"person\":\""
                + person + "\"}]");
        JsonNode taken = report("\"notices\":[" + told("put-off", ",\"answer\":\"later\",\"until\":\"" + later + "\",\"left\":2,\"last\":\"" + in(8) + "\"") + "]");
        assertThat(taken.path("refused").isMissingNode() || taken.path("refused").isNull()).isTrue();
        assertThat(device.work().body().has("answers")).isFalse();
        assertThat(onShelf().get(0).path("state").asString()).isEqualTo("put-off");
        report("\"notices\":[" + told("done", "") + "]");
        assertThat(onShelf()).isEmpty();
        assertThat(lines().subList(0, 3)).satisfiesExactly(line -> assertThat(line).isEqualTo("The restart was done, for Told " + next),
                line -> assertThat(line).startsWith("Mirko Colddale put the restart off until ").endsWith("; 2 more allowed"),
                line -> assertThat(line).isEqualTo("Mirko Colddale was asked for the restart, for Told " + next));
        assertThat(server.ask("GET", "/api/people/" + person + "/notices", null).body().get(1).path("line").asString()).startsWith("Mirko Colddale put the restart off");
    }

    @Test
    void whatTheAssignmentDoesNotAllowDoesNotCount() {
        assign(Map.of("courtesy", Map.of("restart", Map.of("way", "ask", "defer", Map.of("times", 1, "until", "PT4H")))));
        asks();
        assertThat(says("later", in(5)).code()).isEqualTo("put-off-too-long");
        assertThat(says("later", "2026-01-01T00:00:00Z").code()).isEqualTo("bad-time");
        assertThat(says("later", null).code()).isEqualTo("bad-time");
        assertThat(says("read", null).code()).isEqualTo("asks");
        JsonNode refused = report("\"notices\":[" + told("put-off", ",\"answer\":\"later\",\"until\":\"" + in(6) + "\"") + "]").path("refused");
        assertThat(refused.get(0).path("code").asString()).isEqualTo("put-off-too-long");
        assertThat(onShelf().get(0).path("state").asString()).as("it stays as it was").isEqualTo("shown");
        assertThat(lines().get(0)).endsWith("; this did not count (longer than allowed)");
        report("\"notices\":[" + told("put-off", ",\"answer\":\"at-sign-out\"") + "]");
        assertThat(says("at-sign-out", null).code()).isEqualTo("put-off-too-often");
        assertThat(says("now", null).status()).as("that always").isEqualTo(204);
    }

    @Test
    void aCountdownCannotBePutOff() {
        assign(Map.of());
        asks();
        report("\"notices\":[" + told("counting-down", ",\"until\":\"" + in(1) + "\"") + "]");
        assertThat(says("later", in(1)).code()).isEqualTo("counts-down");
        assertThat(onShelf().get(0).path("words").path("en").asString()).startsWith("This computer restarts at {time}");
    }

    @Test
    void whatIsWithdrawnCannotBeAnswered() {
        assign(Map.of());
        asks();
        report("\"notices\":[" + told("over", "") + "]");
        assertThat(says("now", null).status()).isEqualTo(409);
        JsonNode refused = report("\"notices\":[" + told("counting-down", ",\"answer\":\"now\"") + "]").path("refused");
        assertThat(refused.get(0).path("code").asString()).isEqualTo("withdrawn");
    }

    @Test
    void nobodyAnswersForAnotherComputerOrForSomebodyElse() {
        assign(Map.of());
        asks();
        TestClient stranger = new TestClient(server.url());
        assertThat(stranger.ask("PUT", "/api/shelf/notices/" + device.id + "/" + notice, Map.of("answer", "now")).status()).as("without a session").isEqualTo(403);
        assertThat(stranger.ask("POST", "/api/shelf/session", Map.of("account", "rowena.elmby", "password", TestServer.PASSWORD)).status()).isEqualTo(200);
        assertThat(stranger.ask("PUT", "/api/shelf/notices/" + device.id + "/" + notice, Map.of("answer", "now")).status()).isEqualTo(403);
        assertThat(own.ask("PUT", "/api/shelf/notices/" + device.id + "/other", Map.of("answer", "now")).status()).isEqualTo(409);
        assertThat(own.ask("PUT", "/api/shelf/notices/" + device.id + "/" + notice, Map.of()).status()).isEqualTo(422);
    }

    @Test
    void whatIsHeldBackIsReadOnTheShelfAndThenNotShown() {
        assign(Map.of());
        report("\"notices\":[{\"notice\":\"" + notice + "\",\"kind\":\"done\",\"titles\":[\"" + title + "\"],\"state\":\"held\",\"at\":\"2026-11-29T08:00:00Z\"}]");
        assertThat(onShelf().get(0).path("words").path("de").asString()).isEqualTo("Told " + next + " ist installiert.");
        assertThat(says("now", null).code()).isEqualTo("asks-nothing");
        assertThat(says("read", null).status()).isEqualTo(204);
        assertThat(device.work().body().path("answers").get(0).path("answer").asString()).isEqualTo("read");
    }

    @ParameterizedTest
    @CsvSource({"notice,BAD ID", "kind,fire", "state,shouted", "person,nobody"})
    void whatMakesNoSenseIsRefusedWhole(String member, String value) {
        assign(Map.of());
        String sent = "{\"number\":" + (number + 1) + ",\"notices\":[" + told("shown", "").replaceAll("\"" + member + "\":\"[^\"]*\"", "\"" + member + "\":\"" + value + "\"")
                + "]}";
        assertThat(device.report(sent).status()).as(sent).isBetween(400, 422);
        assertThat(onShelf()).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"[null]", "[{\"notice\":\"n\",\"kind\":\"done\",\"state\":\"shown\",\"at\":\"2026-11-29T08:00:00Z\",\"titles\":[null]}]", "[{}]", "{}"})
    void whatIsNoNoticeIsRefused(String notices) {
        Answer refused = device.report("{\"number\":" + (number + 1) + ",\"notices\":" + notices + "}");
        assertThat(refused.status()).as(notices).isBetween(400, 422);
    }

    @Test
    void aTitleThatHasGoneMeanwhileIsLeftOut() {
        report("\"notices\":[" + told("shown", "") + "]");
        assertThat(onShelf()).as("of a title that nobody knows").hasSize(1);
        assertThat(lines().get(0)).isEqualTo("Mirko Colddale was asked for the restart, for a title that has gone");
    }

    @Test
    void whatNobodyKnewOfIsNotSaidToBeOver() {
        int before = lines().size();
        report("\"notices\":[" + told("over", "") + "]");
        assertThat(lines()).hasSize(before);
    }

    @Test
    void noDeviceFillsTheMemoryWithNotices() {
        StringBuilder many = new StringBuilder();
        for (int i = 0; i < 150; i++) {
            many.append(i == 0 ? "" : ",").append("{\"notice\":\"x").append(i).append("\",\"kind\":\"restart\",\"titles\":[],\"state\":\"shown\",\"at\":\"2026-11-29T08:00:00Z\"}");
        }
        report("\"notices\":[" + many + "]");
        Answer refused = device.report("{\"number\":" + (number + 1) + ",\"notices\":[" + many.toString().replace("\"x", "\"y") + "]}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.code()).isEqualTo("too-many");
        report("\"notices\":[" + many.toString().replace("shown", "over") + "]");
        assertThat(Notices.open(server.bean(CurrentSnapshot.class).now(), device.id)).isEmpty();
    }

    @Test
    void whatIsOpenIsThereAfterARestart() {
        assign(Map.of());
        asks();
        says("later", in(2));
        var now = server.bean(CurrentSnapshot.class).now();
        var read = server.bean(SnapshotReader.class).read(now.estate().asOf());
        assertThat(read.get(Notices.OPEN)).isEqualTo(now.get(Notices.OPEN)).isNotEmpty();
        assertThat(Objects.requireNonNull(read.get(Notices.OPEN).get(device.id)).get(0).said()).isNotNull();
    }

    @Test
    void quietHoursAreToldToDevices() {
        assertThat(server.ask("PUT", "/api/quiet-hours", Map.of("from", "20:00", "to", "06:30")).status()).isEqualTo(204);
        assertThat(server.ask("GET", "/api/quiet-hours", null).body().toString()).isEqualTo("{\"from\":\"20:00\",\"to\":\"06:30\"}");
        assertThat(device.work().body().path("quietHours").toString()).isEqualTo("{\"from\":\"20:00:00\",\"to\":\"06:30:00\"}");
        assertThat(server.ask("DELETE", "/api/quiet-hours", null).status()).isEqualTo(204);
        assertThat(device.work().body().has("quietHours")).isFalse();
    }

    @Test
    void whoeverChangesQuietHoursIsOnRecordAndEverybodyIsTold() {
        long before = journalled();
        Map<String, String> hours = Map.of("from", "21:00", "to", "05:00");
        Told.by(server, () -> server.ask("PUT", "/api/quiet-hours", hours), Topics.WINDOWS);
        assertThat(journalled()).isEqualTo(before + 1);
        server.ask("PUT", "/api/quiet-hours", hours);
        assertThat(journalled()).as("the same again changes nothing").isEqualTo(before + 1);
        Told.by(server, () -> server.ask("DELETE", "/api/quiet-hours", null), Topics.WINDOWS);
        server.ask("DELETE", "/api/quiet-hours", null);
        assertThat(journalled()).isEqualTo(before + 2);
    }

    private static long journalled() {
        return server.bean(JdbcClient.class).sql("select count(*) from journal where kind = 'quiet-hours-changed'").query(Long.class).single();
    }

    @ParameterizedTest
    @CsvSource({"20:00,20:00", "8pm,06:00", "24:00,06:00", "20:00,", "20:00:30,06:00"})
    void timesThatAreNoneAreRefused(String from, @Nullable String to) {
        Map<String, Object> body = new HashMap<>(Map.of("from", from));
        body.computeIfAbsent("to", key -> to);
        Answer refused = server.ask("PUT", "/api/quiet-hours", body);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.code()).isEqualTo("bad-time");
    }

    @Test
    void everyLanguageHasAllWords() {
        for (String key : List.of("coming.install", "coming.remove", "start.install", "start.remove", "done", "removed", "failed.install", "failed.remove", "restart",
                "restart.last", "sign-out", "sign-out.last", "close", "close.last")) {
            assertThat(NoticeWords.shipped().of(key, Map.of("title", "X", "minutes", "5", "programs", "x.exe"))).as(key).containsOnlyKeys("de", "en")
                    .allSatisfy((language, words) -> assertThat(words.replace("{time}", "")).doesNotContain("{").contains("X"));
        }
    }
}
