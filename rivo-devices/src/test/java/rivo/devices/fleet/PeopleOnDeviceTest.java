package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ShelfAct;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Work;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A simulated device that two people share, against a server that says what the test wants. */
class PeopleOnDeviceTest {

    private static final Work.Person ROWENA = new Work.Person("u1", "rowena.elmby", "Rowena Elmby");
    private static final Work.Person MIRKO = new Work.Person("u2", "mirko.colddale", "Mirko Colddale");
    private static final List<Work.Check> MAPS = List.of(Work.Check.inventory("brookmap", "Brookmap Studio"));

    @TempDir
    private Path folder;
    private FakeServer server;

    @BeforeEach
    void serve() throws IOException {
        server = new FakeServer();
        server.contents = (from, to) -> new byte[0];
    }

    @AfterEach
    void stop() {
        server.close();
    }

    private SimulatedFleet fleet(Duration sessions, Map<String, Map<String, String>> profiles) throws IOException {
        FleetSettings settings = new FleetSettings(server.url(), folder, 5, Duration.ofMillis(60), Duration.ofSeconds(1), Duration.ZERO,
                Duration.ofMillis(10), Duration.ofMillis(100), sessions);
        SimulatedFleet fleet = new SimulatedFleet(settings, new Roster(List.of(new Roster.Entry("QB-TRW-001", server.token(), true,
                Map.of("arch", "x64"), Map.of(), List.of(ROWENA.account(), MIRKO.account()), profiles, false))));
        fleet.start();
        return fleet;
    }

    private static Job maps(JobAction action, Work.Person person) {
        return new Job("brookmap", "Brookmap Studio", action, action == JobAction.REMOVE ? null : "3.0", List.of(),
                List.of(Job.Step.of(StepKind.RUN, "running", "x", 60))).of(person.id(), false);
    }

    private static Work forPeople(List<Work.Check> checks, Job... jobs) {
        return new Work(List.of(jobs), checks, List.of(), List.of()).withPeople(List.of(ROWENA, MIRKO), MAPS);
    }

    private List<Progress> progress() {
        return server.reports.stream().filter(r -> r.progress() != null).flatMap(r -> r.progress().stream()).toList();
    }

    private List<String> said(Work.Person person) {
        return progress().stream().filter(p -> person.id().equals(p.person())).map(p -> p.state() + " " + p.message()).toList();
    }

    private boolean isDone(Work.Person person) {
        return progress().stream().anyMatch(p -> person.id().equals(p.person()) && p.state() == JobState.DONE);
    }

    private List<Report.Found> lastPresent() {
        return new ArrayList<>(server.reports).stream().filter(r -> r.present() != null).reduce((a, b) -> b).map(Report::present).orElse(List.of());
    }

    private static void until(BooleanSupplier condition) {
        Eventually.within(Duration.ofSeconds(15), condition);
    }

    @Test
    void theAgentOpensTheShelfOfWhoeverIsSignedIn() throws Exception {
        server.work = forPeople(List.of());
        try (SimulatedFleet fleet = fleet(Duration.ZERO, Map.of())) {
            until(() -> server.reports.size() > 1);
            assertThat(fleet.openShelf("QB-TRW-001")).isEqualTo(server.url().resolve("/shelf#in=rowena.elmby"));
            assertThatThrownBy(() -> fleet.openShelf("QB-TRW-999")).isInstanceOf(IOException.class).hasMessageContaining("no device");
        }
    }

    @Test
    void peopleTakeFromTheirShelfAndGiveBack() {
        JsonNode shelf = new JsonMapper().readTree("{\"offers\":[{\"title\":\"free\",\"state\":\"offered\"},{\"title\":\"asked\",\"state\":\"offered\",\"asks\":{}},"
                + "{\"title\":\"page\",\"state\":\"offered\",\"web\":\"https://x.example/\"},{\"title\":\"had\",\"state\":\"in-place\",\"request\":{\"state\":\"taken\"}},"
                + "{\"title\":\"given\",\"state\":\"in-place\"}]}");
        Luck luck = new Luck(5, "d");
        Set<ShelfAct> acts = IntStream.range(0, 100).mapToObj(i -> SimulatedPerson.does(luck, shelf, "r", "time " + i)).collect(Collectors.toSet());
        assertThat(acts).containsExactlyInAnyOrder(ShelfAct.of("r", ShelfAct.Action.TAKE, "free"), ShelfAct.of("r", ShelfAct.Action.GIVE_BACK, "had"));
        assertThat(SimulatedPerson.does(luck, new JsonMapper().readTree("{\"offers\":[]}"), "r", "time 1")).isNull();
    }

    @Test
    void whoIsSignedInIsToldBeforeTheFirstCallIn() throws Exception {
        server.work = forPeople(List.of());
        try (SimulatedFleet fleet = fleet(Duration.ZERO, Map.of())) {
            until(() -> !server.reports.isEmpty());
            assertThat(server.reports.peek().signedIn()).containsExactly(ROWENA.account());
            assertThat(server.reports.peek().facts()).isNotEmpty();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aPersonsJobWaitsForTheirSignInAndHoldsNobodyUp() throws Exception {
        server.work = forPeople(List.of(), maps(JobAction.INSTALL, MIRKO), maps(JobAction.INSTALL, ROWENA));
        try (SimulatedFleet fleet = fleet(Duration.ZERO, Map.of())) {
            until(() -> isDone(ROWENA));
            assertThat(said(MIRKO)).as("said once").containsExactly("WAITING waits for the next sign-in of Mirko Colddale");
            until(() -> lastPresent().contains(new Report.Found("brookmap", "3.0", "u1")));
            assertThat(lastPresent()).as("in her profile alone").hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void eachGetsTheirsWhenTheySignIn() throws Exception {
        server.work = forPeople(List.of(), maps(JobAction.INSTALL, MIRKO), maps(JobAction.INSTALL, ROWENA));
        try (SimulatedFleet fleet = fleet(Duration.ofMillis(400), Map.of())) {
            until(() -> isDone(ROWENA) && isDone(MIRKO));
            until(() -> lastPresent().size() == 2);
            assertThat(lastPresent()).extracting(Report.Found::person).containsExactlyInAnyOrder("u1", "u2");
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aRemovalIsOfOneProfileAlone() throws Exception {
        server.work = forPeople(List.of(), maps(JobAction.REMOVE, ROWENA));
        Map<String, String> maps = Map.of("Brookmap Studio", "2.8");
        try (SimulatedFleet fleet = fleet(Duration.ZERO, Map.of(ROWENA.account(), maps, MIRKO.account(), maps))) {
            until(() -> isDone(ROWENA));
            until(() -> lastPresent().equals(List.of(new Report.Found("brookmap", "2.8", "u2"))));
            assertThat(fleet).isNotNull();
        }
    }

    /** The device's part first, then each person's, once. */
    @Test
    void theRestOfADevicesTitleComesAfterItForEachPerson() throws Exception {
        Job device = new Job("otterlink", "Otterlink Tunnel", JobAction.INSTALL, "5.3", List.of(), List.of(Job.Step.of(StepKind.RUN, "running", "x", 60)));
        server.work = forPeople(List.of(Work.Check.inventory("otterlink", "Otterlink Tunnel")), device.of("u1", true), device.of("u2", true), device);
        try (SimulatedFleet fleet = fleet(Duration.ofMillis(400), Map.of())) {
            until(() -> isDone(ROWENA) && isDone(MIRKO));
            int told = server.asked.size();
            until(() -> server.asked.size() > told + 10);
            List<String> done = progress().stream().filter(p -> p.state() == JobState.DONE).map(p -> String.valueOf(p.person())).toList();
            assertThat(done).startsWith("null").hasSize(3).containsExactlyInAnyOrder("null", "u1", "u2");
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void whatWasTidiedForNobodyIsNotTidiedAgain() {
        Job rest = new Job("otterlink", "Otterlink Tunnel", JobAction.INSTALL, "5.3", List.of(), List.of(Job.Step.of(StepKind.RUN, "x", "x", 60))).of("u1", true);
        Job tidy = new Job("otterlink", "Otterlink Tunnel", JobAction.REMOVE, null, List.of(), rest.steps()).of("u1", true);
        DeviceJobs fresh = new DeviceJobs(forPeople(List.of()), DeviceState.fresh("d", Map.of(), Map.of()));
        assertThat(fresh.isSo(rest)).isFalse();
        assertThat(fresh.isSo(tidy)).as("nothing was ever done for her").isTrue();
        DeviceJobs done = new DeviceJobs(fresh.work(), fresh.after(rest));
        assertThat(done.isSo(rest)).isTrue();
        assertThat(done.isSo(tidy)).isFalse();
        assertThat(done.isSo(new Job("otterlink", "", JobAction.INSTALL, "5.4", List.of(), rest.steps()).of("u1", true))).as("a newer one").isFalse();
        assertThat(new DeviceJobs(done.work(), done.after(tidy)).isSo(tidy)).isTrue();
    }

    @Test
    void peopleTakeTurnsAndNowAndThenNobodyIsThere() {
        Sessions sessions = new Sessions(new Luck(7, "QB-TRW-001"), List.of("a", "b"), Duration.ofMinutes(1));
        List<List<String>> day = IntStream.range(0, 1440).mapToObj(i -> sessions.at(Instant.EPOCH.plusSeconds(60L * i))).toList();
        Set<List<String>> seen = new HashSet<>(day);
        assertThat(seen).containsExactlyInAnyOrder(List.of(), List.of("a"), List.of("b"));
        assertThat(day.stream().filter(List::isEmpty).count()).isBetween(100L, 320L);
        assertThat(sessions.at(Instant.EPOCH.plusSeconds(7))).as("the same on every run").isEqualTo(sessions.at(Instant.EPOCH.plusSeconds(7)));
        assertThat(new Sessions(new Luck(7, "x"), List.of("a", "b"), Duration.ZERO).at(Instant.now())).containsExactly("a");
    }
}
