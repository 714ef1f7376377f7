package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.devices.protocol.Job;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import tools.jackson.databind.JsonNode;

/** From when on jobs do not wait for windows: what assignments say of deadlines, as devices are told it. */
class JobTimesTest extends ServerTest {

    private static final Instant DEADLINE = Instant.parse("2026-12-04T18:00:00Z");

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    private static Job job(Object... parts) {
        JsonNode known = server.ask("GET", "/api/draft/documents/assignment/a-1", null).body();
        Map<String, Object> document = new HashMap<>(Map.of("id", "a-1", "subject", "title:siltscope", "intent", "required", "follows", "device",
                "include", List.of("ou:" + server.ou("Microbiology"))));
        for (int i = 0; i < parts.length; i += 2) {
            document.put((String) parts[i], parts[i + 1]);
        }
        server.ask("PUT", "/api/draft/documents/assignment/a-1", Map.of("revision", known.path("revision").asInt(0), "document", document));
        server.publish("when");
        Snapshot now = server.bean(CurrentSnapshot.class).now();
        Device device = now.estate().devices().find(server.device("QB-LAB-001"));
        return WorkOfDevice.of(now, Objects.requireNonNull(device)).jobs().get(0);
    }

    @Test
    void aDeadlineWinsOverWindowsWhereTheAssignmentSaysSo() {
        assertThat(job().anyTimeFrom()).as("no deadline").isNull();
        assertThat(job("deadline", Map.of("at", DEADLINE.toString())).anyTimeFrom()).as("it waits for its window").isNull();
        Job wins = job("deadline", Map.of("at", DEADLINE.toString()), "windows", "deadline-wins");
        assertThat(wins.anyTimeFrom()).isBetween(DEADLINE, DEADLINE.plus(Duration.ofMinutes(10)));
        assertThat(wins.isAnyTime(DEADLINE.minusSeconds(1))).isFalse();
        assertThat(wins.isAnyTime(DEADLINE.plus(Duration.ofMinutes(10)))).isTrue();
        assertThat(job("windows", "deadline-wins").anyTimeFrom()).as("without a deadline nothing wins").isNull();
        assertThat(job("windows", "ignore").isAnyTime(Instant.EPOCH)).isTrue();
        Job local = job("deadline", Map.of("local", "2026-12-04T18:00"), "windows", "deadline-wins");
        Instant here = LocalDateTime.parse("2026-12-04T18:00").atZone(ZoneId.systemDefault()).toInstant();
        assertThat(local.anyTimeFrom()).isBetween(here, here.plus(Duration.ofMinutes(10)));
    }
}
