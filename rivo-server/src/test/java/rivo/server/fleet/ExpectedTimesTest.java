package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.state.CallInHabit;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.ServerTest;
import rivo.server.TestDevice;
import rivo.server.TestTitles;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Rows;
import tools.jackson.databind.JsonNode;

/** When titles are expected to be in place: by devices' call-ins, windows, and how long the title takes. */
class ExpectedTimesTest extends ServerTest {

    private static int next;
    private static TestDevice one;
    private static TestDevice other;
    private static long number;

    private String title;

    @BeforeAll
    static void devices() {
        one = TestDevice.enrolled(server, "QB-LAB-001");
        other = TestDevice.enrolled(server, "QB-LAB-002");
    }

    @BeforeEach
    void assign() {
        title = "expected-" + ++next;
        TestTitles.add(server, title, "Expected " + next);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/" + title, Map.of("revision", 0, "document", Map.of("id", title, "seq", 0, "subject",
                "title:" + title, "intent", "required", "follows", "device", "include", List.of("device:" + one.id, "device:" + other.id)))).status()).isEqualTo(200);
        assertThat(server.publish("expected").status()).isEqualTo(200);
    }

    @AfterEach
    void noWindow() {
        server.ask("DELETE", "/api/windows/late", null);
    }

    private static void callsIn(TestDevice device, int nextInSeconds) {
        assertThat(device.ask("GET", "/device/v2/work", null, Map.of("Rivo-Next-Call-In", String.valueOf(nextInSeconds))).status()).isEqualTo(200);
    }

    private void says(TestDevice device, String state, Instant at, String more) {
        assertThat(device.report("{\"number\":" + ++number + ",\"progress\":[{\"title\":\"" + title + "\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"" + state
                + "\",\"step\":1,\"steps\":4,\"percent\":10,\"message\":\"x\",\"at\":\"" + at + "\"" + more + "}]}").body().path("taken").asBoolean()).isTrue();
    }

    private JsonNode line() {
        return server.ask("GET", "/api/devices/" + one.id, null).body().path("lines").valueStream().filter(each -> each.path("title").asString().equals(title))
                .findFirst().orElseThrow().path("expected");
    }

    private JsonNode all() {
        return server.ask("GET", "/api/titles/" + title + "/states", null).body().path("expected");
    }

    private static Instant at(JsonNode node) {
        return Instant.parse(node.asString());
    }

    /** One that has learned nothing yet. */
    private static UsualDurations fresh() {
        server.bean(JdbcClient.class).sql("delete from usual_durations").update();
        return new UsualDurations(server.bean(ChangeWriter.class), server.bean(JdbcClient.class), Clock.systemUTC());
    }

    /** What other titles have taken in the meantime. */
    private long usual(double share) {
        Duration usual = server.bean(UsualDurations.class).within(title, JobAction.INSTALL, share);
        return usual == null ? 0 : usual.toSeconds();
    }

    @Test
    void itIsExpectedAtTheNextCallInOfEachAndHalfOfThemBefore() {
        callsIn(one, 600);
        callsIn(other, 7200);
        Instant now = Instant.now();
        assertThat(at(line().path("from"))).isCloseTo(now.plusSeconds(600 + usual(0.1)), within(20, ChronoUnit.SECONDS));
        assertThat(at(line().path("to"))).isCloseTo(now.plusSeconds(600 + usual(0.9)), within(20, ChronoUnit.SECONDS));
        assertThat(all().path("units").asInt()).isEqualTo(2);
        assertThat(at(all().path("nineInTen"))).isCloseTo(now.plusSeconds(7200 + usual(5 / 6.0)), within(20, ChronoUnit.SECONDS));
        assertThat(all().path("away").asInt()).isZero();
    }

    @Test
    void itTakesAsLongAsItTookOnOthersOrAsOtherTitlesDo() {
        callsIn(one, 600);
        Instant begins = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        says(other, "running", begins, "");
        says(other, "running", begins.plusSeconds(100), "");
        says(other, "waiting", begins.plusSeconds(300), ",\"waits\":{\"reason\":\"restart\"}");
        says(other, "done", begins.plusSeconds(9000), "");
        assertThat(server.bean(UsualDurations.class).within(title, JobAction.INSTALL, 0.5)).as("without the wait for a restart").isEqualTo(Duration.ofSeconds(300));
        assertThat(at(line().path("from"))).isCloseTo(Instant.now().plusSeconds(900), within(20, ChronoUnit.SECONDS));
        assertThat(server.bean(UsualDurations.class).within(title, JobAction.REMOVE, 0.5)).isNull();

        server.bean(UsualDurations.class).write();
        UsualDurations restarted = new UsualDurations(server.bean(ChangeWriter.class), server.bean(JdbcClient.class), Clock.systemUTC());
        assertThat(restarted.within(title, JobAction.INSTALL, 0.9)).as("after a restart").isEqualTo(Duration.ofSeconds(300));
    }

    @Test
    void oneThatFailedOrNeverBeganTellsNothingOfHowLongItTakes() {
        UsualDurations durations = fresh();
        Instant begins = Instant.now();
        durations.reported("d", List.of(progress("done", begins), progress("running", begins), progress("failed", begins.plusSeconds(50)),
                progress("done", begins.plusSeconds(60)), progress("running", begins), progress("done", begins.plusSeconds(90_000))));
        assertThat(durations.within(title, JobAction.INSTALL, 0.5)).isNull();
        durations.reported("d", List.of(progress("running", begins), progress("done", begins.plusSeconds(70))));
        assertThat(durations.within(title, JobAction.INSTALL, 0.5)).isEqualTo(Duration.ofSeconds(70));
        assertThat(durations.within("another", JobAction.INSTALL, 0.5)).as("as others do").isEqualTo(Duration.ofSeconds(70));
    }

    @Test
    void theLastOnesCount() {
        UsualDurations durations = fresh();
        Instant begins = Instant.now();
        for (int i = 0; i < 70; i++) {
            durations.reported("d" + i, List.of(progress("running", begins), progress("done", begins.plusSeconds(i < 6 ? 5000 : i < 38 ? 100 : 200))));
        }
        assertThat(Arrays.stream(new double[] {0, 0.49, 0.5, 1}).mapToObj(share -> durations.within(title, JobAction.INSTALL, share)).map(Duration::toSeconds))
                .containsExactly(100L, 100L, 200L, 200L);
    }

    private Progress progress(String state, Instant at) {
        return new Progress(title, null, JobAction.INSTALL, "4.2.0", JobState.valueOf(state.toUpperCase(Locale.ROOT)), 1,
                4, 1, "x", null, at);
    }

    @Test
    void itWaitsForAWindowThatOpensAfterTheCallIn() {
        callsIn(one, 600);
        LocalTime opens = LocalTime.now().plusHours(3).truncatedTo(ChronoUnit.MINUTES);
        assertThat(server.ask("PUT", "/api/windows/late", Map.of("id", "late", "name", "Late", "days", List.of("MONDAY", "TUESDAY", "WEDNESDAY", "THURSDAY", "FRIDAY", "SATURDAY",
                "SUNDAY"), "opens", opens.toString(), "minutes", 60)).status()).isEqualTo(204);
        Instant first = LocalDate.now().atTime(opens).atZone(ZoneId.systemDefault()).toInstant();
        assertThat(at(line().path("from"))).isEqualTo((first.isBefore(Instant.now()) ? first.plus(Duration.ofDays(1)) : first).plusSeconds(usual(0.1)));
    }

    @Test
    void whoeverHasBeenAwayForTwoWeeksIsCountedApart() {
        callsIn(one, 600);
        callsIn(other, 600);
        Fleet fleet = server.bean(Fleet.class);
        fleet.writeCallIns();
        server.bean(JdbcClient.class).sql("update call_ins set at = ? where device = ?").params(Rows.at(Instant.now().minus(Duration.ofDays(15))), other.id).update();
        Fleet restarted = new Fleet(server.bean(ChangeWriter.class), server.bean(JdbcClient.class), Clock.systemUTC(), JobDurations.UNKNOWN);
        var snapshot = server.bean(CurrentSnapshot.class).now();
        TitleStates.StateCounts counts = new TitleStates(restarted).count(snapshot, snapshot.estate().title(title), 0, snapshot.estate().devices().size());
        assertThat(counts.expected().away()).isEqualTo(1);
        assertThat(counts.expected().units()).isEqualTo(1);
        assertThat(restarted.of(snapshot, one.id).habit()).as("kept").isEqualTo(fleet.of(snapshot, one.id).habit()).isNotEqualTo(CallInHabit.NONE);
    }

    @Test
    void whatIsUnderWayIsExpectedWithinItsTime() {
        callsIn(one, 600);
        server.bean(UsualDurations.class).reported("d", List.of(progress("running", Instant.EPOCH), progress("done", Instant.EPOCH.plusSeconds(120))));
        Instant begins = Instant.now();
        says(one, "running", begins, "");
        assertThat(at(line().path("to"))).isCloseTo(begins.plusSeconds(120), within(2, ChronoUnit.SECONDS));
        says(one, "waiting", begins, ",\"waits\":{\"reason\":\"answer\"}");
        assertThat(line().isMissingNode()).as("nobody knows when they answer").isTrue();
    }
}
