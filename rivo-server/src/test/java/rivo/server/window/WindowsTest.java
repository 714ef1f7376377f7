package rivo.server.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.DayOfWeek;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Device;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Maintenance windows: kept, told to the devices they are for, and looked at before a title is assigned. */
class WindowsTest {

    @TempDir
    private static Path data;
    private static TestServer server;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
    }

    @AfterEach
    void clear() {
        List.copyOf(MaintenanceWindows.all(now())).forEach(w -> server.ask("DELETE", "/api/windows/" + w.id(), null));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Answer put(String id, String fits, String opens, int minutes, DayOfWeek... days) {
        return server.ask("PUT", "/api/windows/" + id, new WindowDocument(id, "Window " + id, fits, List.of(days), opens, minutes));
    }

    private static int windowsOf(String device) {
        var resolver = now().resolver();
        Device found = resolver.estate().devices().find(server.device(device));
        return MaintenanceWindows.of(now(), found).size();
    }

    private static JsonNode look() {
        return server.ask("GET", "/api/titles/siltscope", null).body().at("/releases/0/looks").valueStream()
                .filter(l -> l.path("code").asString().endsWith("window")).findFirst().orElseThrow();
    }

    @Test
    void aWindowIsForTheDevicesItsRuleNames() {
        assertThat(put("labs", "name sw \"QB-LAB\"", "22:00", 60, DayOfWeek.MONDAY).status()).isEqualTo(204);
        assertThat(windowsOf("QB-LAB-003")).isEqualTo(1);
        assertThat(windowsOf("QB-NET-005")).isZero();
        JsonNode line = server.ask("GET", "/api/windows", null).body().get(0);
        assertThat(line.path("devices").asInt()).isEqualTo(16);
        assertThat(put("labs", null, "23:15", 90, DayOfWeek.SUNDAY, DayOfWeek.MONDAY, DayOfWeek.MONDAY).status()).isEqualTo(204);
        assertThat(server.ask("GET", "/api/windows", null).body().at("/0/window/days")).hasSize(2);
        assertThat(windowsOf("QB-NET-005")).isEqualTo(1);
    }

    @Test
    void aTitleThatTakesLongerThanEveryWindowOfADeviceIsPointedOut() {
        assertThat(look().path("well").asBoolean()).isTrue();
        put("short", "name sw \"QB-LAB\"", "22:00", 19, DayOfWeek.MONDAY);
        assertThat(look().path("code").asString()).isEqualTo("longer-than-window");
        assertThat(look().path("detail").asString()).isEqualTo("20 min at most, but Window short is open 19 min: 16 devices "
                + "could never start it.");
        put("long", "name eq \"QB-LAB-003\"", "22:00", 20, DayOfWeek.MONDAY);
        assertThat(look().path("detail").asString()).as("one of several that is long enough will do").contains(": 15 devices");
        put("short", "name sw \"QB-LAB\"", "22:00", 20, DayOfWeek.MONDAY);
        assertThat(look().path("well").asBoolean()).isTrue();
        assertThat(look().path("detail").asString()).isEqualTo("20 min at most");
    }

    @Test
    void everythingThatIsWrongIsSaidTogether() {
        Answer answer = put("bad", "name is x", "24:00", 0);
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("problems").valueStream().map(p -> p.path("code").asString()))
                .containsExactly("no-day", "bad-time", "bad-minutes", "bad-rule");
        assertThat(put("Bad_id", null, "22:00", 1441, DayOfWeek.MONDAY).body().path("problems")).hasSize(2);
        assertThat(server.ask("PUT", "/api/windows/other", Map.of("id", "x", "minutes", 5)).code()).isEqualTo("other-id");
        assertThat(server.ask("DELETE", "/api/windows/none", null).code()).isEqualTo("unknown-window");
    }

    private static List<String> journal() {
        return server.bean(JdbcClient.class).sql("select kind, who, subject, before_value, after_value from journal where kind like 'window-%' "
                + "order by number").query((row, n) -> row.getString("kind") + " " + row.getString("who") + " " + row.getString("subject") + " "
                        + minutes(row.getString("before_value")) + " > " + minutes(row.getString("after_value"))).list();
    }

    private static String minutes(String json) {
        JsonNode value = json == null ? null : new JsonMapper().readTree(json);
        return value == null ? "none" : value.path("minutes").asString() + value.path("/minutes").asString();
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    /** As a restart would read them. */
    private static List<WindowDocument> again() {
        return WindowDocument.KIND.read(server.bean(JdbcClient.class)).stream().toList();
    }

    @Test
    void whatIsPutInChangedAndDeletedIsOnRecordAndReadAgainAfterARestart() {
        int before = journal().size();
        put("night", "name sw \"QB\"", "22:30", 45, DayOfWeek.FRIDAY, DayOfWeek.MONDAY);
        put("night", null, "23:00", 60, DayOfWeek.SUNDAY);
        put("noon", "arch eq \"x64\"", "12:00", 30, DayOfWeek.TUESDAY);
        assertThat(again()).containsExactlyElementsOf(MaintenanceWindows.all(now())).hasSize(2);
        assertThat(server.ask("DELETE", "/api/windows/night", null).status()).isEqualTo(204);
        assertThat(server.ask("DELETE", "/api/windows/night", null).status()).isEqualTo(404);
        String who = DemoOrganisation.ADMINISTRATOR;
        assertThat(journal().subList(before, journal().size())).containsExactly("window-added " + who + " window:night none > 45",
                "window-changed " + who + " window:night 45 > 60", "window-added " + who + " window:noon none > 30",
                "window-deleted " + who + " window:night 60 > none");
        assertThat(again()).extracting(WindowDocument::id).containsExactly("noon");
    }

    @Test
    void everyBoundIsOneThatMayBeReached() {
        for (WindowDocument good : List.of(window("a", "x", 1), window("b", "x".repeat(100), 1440), window("c".repeat(60), "x", 1439))) {
            assertThat(server.ask("PUT", "/api/windows/" + good.id(), good).status()).as(good.toString()).isEqualTo(204);
        }
        for (WindowDocument bad : List.of(window("d", "x".repeat(101), 5), window("d", "", 5), window("d", "x", 0), window("d", "x", 1441),
                window("d".repeat(61), "x", 5), window("-d", "x", 5))) {
            assertThat(server.ask("PUT", "/api/windows/" + bad.id(), bad).body().path("problems")).as(bad.toString()).hasSize(1);
        }
    }

    private static WindowDocument window(String id, String name, int minutes) {
        return new WindowDocument(id, name, null, List.of(DayOfWeek.MONDAY), "00:00", minutes);
    }

    @Test
    void thereAreTwoHundredWindowsAtMost() {
        for (int i = 0; i < 200; i++) {
            server.bean(MaintenanceWindows.class).put("test", window("w" + i, "x", 5));
        }
        assertThat(put("another", null, "22:00", 60, DayOfWeek.MONDAY).code()).isEqualTo("too-many");
        assertThat(put("w7", null, "22:00", 60, DayOfWeek.MONDAY).status()).as("one in place of itself").isEqualTo(204);
        assertThat(MaintenanceWindows.all(now())).hasSize(200);
    }

    /** Several are open long enough or none is; the longest that these devices have is named. */
    @Test
    void ofSeveralWindowsThatAreTooShortTheLongestIsNamed() {
        put("first", "name sw \"QB-LAB\"", "22:00", 5, DayOfWeek.MONDAY);
        put("longest", "name sw \"QB-LAB\"", "22:00", 15, DayOfWeek.MONDAY);
        put("last", "name sw \"QB-LAB\"", "22:00", 10, DayOfWeek.MONDAY);
        put("elsewhere", "name sw \"QB-NET\"", "22:00", 19, DayOfWeek.MONDAY);
        var resolver = now().resolver();
        DeviceSet labs = resolver.audiences().devicesWhere("name sw \"QB-LAB\"");
        MaintenanceWindows.Stuck stuck = MaintenanceWindows.stuck(now(), labs, 15 * 60 + 1);
        assertThat(stuck.devices()).isEqualTo(16);
        assertThat(stuck.longest().id()).isEqualTo("longest");
        assertThat(MaintenanceWindows.stuck(now(), labs, 15 * 60)).as("one that is exactly long enough").isNull();
    }
}
