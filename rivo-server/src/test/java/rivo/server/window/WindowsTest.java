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
import rivo.core.estate.Device;
import rivo.server.TestServer;
import rivo.server.TestClient.Answer;
import rivo.server.Titles;
import rivo.server.estate.WorkingEstate;
import tools.jackson.databind.JsonNode;

/** Maintenance windows: kept, told to the devices they are for, and looked at before a title is assigned. */
class WindowsTest {

    @TempDir
    private static Path data;
    private static TestServer server;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        Titles.add(server);
    }

    @AfterEach
    void clear() {
        List.copyOf(server.bean(MaintenanceWindows.class).all()).forEach(w -> server.ask("DELETE", "/api/windows/" + w.id(), null));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Answer put(String id, String fits, String opens, int minutes, DayOfWeek... days) {
        return server.ask("PUT", "/api/windows/" + id, new MaintenanceWindow(id, "Window " + id, fits, List.of(days), opens, minutes));
    }

    private static int windowsOf(String device) {
        var resolver = server.bean(WorkingEstate.class).resolver();
        Device found = resolver.estate().devices().find(server.device(device));
        return server.bean(MaintenanceWindows.class).of(resolver, found).size();
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
        assertThat(look().path("detail").asString()).isEqualTo("20 min at most, but Window short is open 19 min: 16 devices would "
                + "never begin.");
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
}
