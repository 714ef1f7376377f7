package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.WaitReason;
import rivo.devices.protocol.Window;
import rivo.devices.protocol.Work;

/** One simulated device against a server that says what the test wants. */
class SimulatedFleetTest {

    private static final byte[] INSTALLER = "installer".getBytes(StandardCharsets.UTF_8);
    
    @TempDir
    private Path folder;
    private FakeServer server;

    @BeforeEach
    void serve() throws IOException {
        server = new FakeServer();
        server.work = new Work(List.of(), List.of(Work.Check.inventory("siltscope", "Siltscope Lab")), List.of(), List.of());
        server.contents = (from, to) -> INSTALLER;
    }

    @AfterEach
    void stop() {
        server.close();
    }

    private SimulatedFleet fleet(Map<String, String> software) throws IOException {
        FleetSettings settings = new FleetSettings(server.url(), folder, 5, Duration.ofMillis(60), Duration.ofSeconds(1),
                Duration.ZERO, Duration.ofMillis(10), Duration.ofMillis(100), Duration.ZERO);
        SimulatedFleet fleet = new SimulatedFleet(settings, new Roster(List.of(
                new Roster.Entry("QB-LAB-014", server.token(), true, Map.of("arch", "x64"), software))));
        fleet.start();
        return fleet;
    }

    private static Work siltscope(JobAction action, String sha256) {
        List<Job.Step> steps = action == JobAction.REMOVE
                ? List.of(Job.Step.of(StepKind.RUN, "running the removal", "x", 60))
                : List.of(Job.Step.of(StepKind.FETCH, "fetching", null, 60),
                        Job.Step.of(StepKind.VERIFY, "checking", null, 60),
                        Job.Step.of(StepKind.RUN, "running", "x", 60),
                        Job.Step.of(StepKind.LOOK, "looking", null, 60));
        return new Work(List.of(new Job("siltscope", "Siltscope Lab", action,
                action == JobAction.REMOVE ? null : "4.2.0",
                List.of(new Job.Content(sha256, INSTALLER.length, "setup")), steps)),
                List.of(Work.Check.inventory("siltscope", "Siltscope Lab")), List.of(), List.of());
    }

    private static Job.Step step(StepKind kind, String skipped, String stops) {
        return new Job.Step(kind, "step", "x", 60, null, null, false, null, Map.of(), List.of(), false, null, null, skipped,
                stops);
    }

    private static Work withSteps(Job.Step... steps) {
        return new Work(List.of(new Job("siltscope", "Siltscope Lab", JobAction.INSTALL, "4.2.0", List.of(),
                List.of(steps))), List.of(new Work.Check("siltscope", List.of(new Work.Seen("4.2.0", false,
                        List.of(new Work.Look(PresenceKind.PRODUCT_CODE, "{5C1E}", "4.2.0")))))), List.of(), List.of());
    }

    private static void until(BooleanSupplier condition) {
        Eventually.within(Duration.ofSeconds(10), condition);
    }

    private List<Progress> progress() {
        return server.reports.stream().filter(r -> r.progress() != null).flatMap(r -> r.progress().stream()).toList();
    }

    private boolean reached(JobState state) {
        return progress().stream().anyMatch(p -> p.state() == state);
    }

    @Test
    void aDeviceEnrolsAndSaysWhatItIs() throws IOException {
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.1.0"))) {
            until(() -> server.reports.size() > 1);
            List<Report> told = List.copyOf(server.reports);
            assertThat(told.get(0).number()).isEqualTo(1);
            assertThat(told.get(0).facts()).as("before it calls in, since its work hangs on them").containsEntry("arch", "x64");
            assertThat(told.get(1).present()).containsExactly(new Report.Found("siltscope", "4.1.0"));
            assertThat(fleet).isNotNull();
        }
    }

    private static Work within(Work work, Window window) {
        return new Work(work.jobs(), work.checks(), List.of(), List.of(window));
    }

    @Test
    void aJobWaitsForAWindowThatIsOpenLongEnough() throws IOException {
        Work whole = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        Window closed = new Window(Set.of(LocalDateTime.now().plusDays(3).getDayOfWeek()), LocalTime.NOON, 60);
        server.work = within(whole, closed);
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            assertThat(progress().get(0).message()).startsWith("waits for its window, which opens ");
            assertThat(reached(JobState.RUNNING)).isFalse();
            server.work = within(whole, new Window(Set.of(DayOfWeek.values()), LocalTime.now().minusMinutes(10), 120));
            until(() -> reached(JobState.DONE));
            assertThat(progress().stream().filter(p -> p.state() == JobState.WAITING)).as("said once").hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aJobThatIsLongerThanTheWindowHoldsNoShorterOneUp() throws IOException {
        Job longer = new Job("cad", "CAD", JobAction.INSTALL, "1", List.of(), List.of(Job.Step.of(StepKind.RUN, "drawing", "x", 86_000)));
        Work whole = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        server.work = new Work(List.of(longer, whole.jobs().get(0)), whole.checks(), List.of(), List.of(new Window(Set.of(DayOfWeek.values()),
                LocalTime.now().minusMinutes(10), 120)));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress().stream().filter(p -> p.state() == JobState.WAITING).map(Progress::title)).containsExactly("cad");
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void stepsLeadWhereTheyAreToldTo() throws IOException {
        Job.Step first = leading(null, 3, "does not hold");
        server.work = withSteps(first, step(StepKind.COPY, null, null), leading(5, null, null), step(StepKind.COPY, null, null),
                step(StepKind.LOOK, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress()).extracting(Progress::step).as("1 fails and leads to 3, which leads to 5")
                    .startsWith(1, 3, 5).doesNotContain(2, 4);
            assertThat(progress().get(1).message()).isEqualTo("does not hold; goes on with: step");
            assertThat(fleet).isNotNull();
        }
    }

    private static Job.Step leading(Integer thenTo, Integer failsTo, String stops) {
        return new Job.Step(StepKind.CHECK, "step", "x", 60, null, null, false, null, Map.of(), List.of(), false, thenTo, failsTo,
                null, stops);
    }

    @Test
    void aJobGoesThroughItsStepsUntilItIsDone() throws IOException {
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress()).extracting(Progress::message).startsWith("fetching", "checking", "running",
                    "looking");
            until(() -> server.reports.stream().anyMatch(r -> r.present() != null
                    && r.present().contains(new Report.Found("siltscope", "4.2.0"))));
            assertThat(fleet).isNotNull();
        }
    }

    private static boolean saysDone(Report report) {
        return report.progress() != null && report.progress().stream().anyMatch(p -> p.state() == JobState.DONE);
    }

    /** Both together: only so does the server know under which assignment it came. */
    private static boolean saysDoneAndPresent(Report report) {
        return saysDone(report) && report.present() != null && report.present().contains(new Report.Found("siltscope", "4.2.0"));
    }

    @Test
    void whatTheServerCouldNotTakeIsSaidAgainWithAllThatIsThere() throws IOException {
        AtomicInteger turnedAway = new AtomicInteger();
        server.turnsAway = report -> saysDone(report) && turnedAway.incrementAndGet() <= 3 ? 503 : 0;
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(server.reports).filteredOn(SimulatedFleetTest::saysDone).hasSize(1).allMatch(SimulatedFleetTest::saysDoneAndPresent);
            assertThat(server.reports).flatExtracting(Report::fetched).as("what was said before is not said again").hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aWaitThatWasNotHeardIsSaidAgainOnceAndThenNothingMore() throws IOException {
        AtomicInteger turnedAway = new AtomicInteger();
        server.turnsAway = report -> report.progress() != null && !report.progress().isEmpty() && turnedAway.incrementAndGet() <= 2 ? 503 : 0;
        Work whole = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        server.work = within(whole, new Window(Set.of(LocalDateTime.now().plusDays(3).getDayOfWeek()), LocalTime.NOON, 60));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            int reports = server.reports.size();
            int asked = server.asked.size();
            until(() -> server.asked.stream().skip(asked).filter(a -> a.startsWith("/device/v2/work")).count() > 4);
            assertThat(server.reports).hasSize(reports);
            assertThat(progress()).hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void whatWasNotHeardIsSaidAfterARestart() throws IOException {
        AtomicInteger turnedAway = new AtomicInteger();
        server.turnsAway = report -> saysDone(report) && turnedAway.incrementAndGet() > 0 ? 503 : 0;
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet first = fleet(Map.of())) {
            until(() -> turnedAway.get() > 0);
            assertThat(first).isNotNull();
        }
        server.turnsAway = report -> 0;
        try (SimulatedFleet second = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(server.reports).filteredOn(SimulatedFleetTest::saysDone).first().matches(SimulatedFleetTest::saysDoneAndPresent);
            assertThat(second).isNotNull();
        }
    }

    @Test
    void whatIsRefusedForGoodHoldsNothingUp() throws IOException {
        AtomicInteger refused = new AtomicInteger();
        server.turnsAway = report -> saysDone(report) && refused.incrementAndGet() > 0 ? 422 : 0;
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> server.reports.stream().anyMatch(r -> r.present() != null && !r.present().isEmpty()));
            assertThat(refused).as("it is not said again").hasValue(1);
            assertThat(reached(JobState.DONE)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }

    /** As of a title that has gone in the meantime: what else was to be said with it is not lost. */
    @Test
    void whatIsRefusedForGoodTakesNothingElseAlong() throws IOException {
        AtomicInteger turnedAway = new AtomicInteger();
        server.turnsAway = report -> report.progress() == null || report.progress().stream().noneMatch(p -> p.message().equals("looking")) ? 0
                : turnedAway.incrementAndGet() == 1 ? 503 : 422;
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(server.reports).filteredOn(SimulatedFleetTest::saysDone).first().matches(SimulatedFleetTest::saysDoneAndPresent);
            assertThat(progress()).extracting(Progress::message).doesNotContain("looking");
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void onlyTheNewestOfAllThatIsUnheardIsKept() {
        Unheard unheard = Unheard.NOTHING;
        for (int i = 0; i < Unheard.MOST + 7; i++) {
            unheard = unheard.and(List.of(), List.of(new Report.Fetched("8f21", null, i)));
        }
        assertThat(unheard.fetched()).hasSize(Unheard.MOST).last().returns((long) Unheard.MOST + 6, Report.Fetched::bytes);
    }

    @Test
    void contentWithAnotherHashIsNeverRun() throws IOException {
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        server.contents = (from, to) -> "poisoned!".getBytes(StandardCharsets.UTF_8);
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.FAILED));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.FAILED).first()
                    .satisfies(p -> assertThat(p.message()).startsWith("the content is not what it should be"));
            assertThat(progress()).noneMatch(p -> p.message().equals("running"));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void whatIsThereAlreadyIsSkipped() throws IOException {
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.2"))) {
            until(() -> server.asked.stream().filter(a -> a.startsWith("/device/v2/work")).count() > 4);
            assertThat(progress()).isEmpty();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aRemovalTakesItOff() throws IOException {
        server.work = siltscope(JobAction.REMOVE, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.2"))) {
            until(() -> server.reports.stream().anyMatch(r -> r.present() != null && r.present().isEmpty()));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void itGoesOnWithItsKeyAfterARestart() throws IOException {
        try (SimulatedFleet first = fleet(Map.of())) {
            until(() -> !server.reports.isEmpty());
            assertThat(first).isNotNull();
        }
        long last = server.reports.stream().mapToLong(Report::number).max().orElseThrow();
        server.reports.clear();
        assertThat(SimulatedFleet.enrolledIn(folder)).containsExactly("QB-LAB-014");
        try (SimulatedFleet second = fleet(Map.of())) {
            until(() -> !server.reports.isEmpty());
            assertThat(server.asked).filteredOn(a -> a.startsWith("/device/v2/enrolments")).hasSize(1);
            // A kill between the answer and the file makes it say the last number again.
            assertThat(server.reports.peek().number()).isGreaterThanOrEqualTo(last);
            assertThat(second).isNotNull();
        }
    }

    @Test
    void aDeviceThatIsRefusedStopsAsking() throws Exception {
        server.refusesEnrolment = true;
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> !server.asked.isEmpty());
            Thread.sleep(300);
            assertThat(server.asked).hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aSkippedStepIsReportedAndLeftOut() throws IOException {
        server.work = withSteps(step(StepKind.RUN, null, null), step(StepKind.COPY, "needs model co \"Intake\", has Bench 7", null),
                step(StepKind.LOOK, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress()).extracting(Progress::message).contains("skipped: needs model co \"Intake\", has Bench 7");
            until(() -> server.reports.stream().anyMatch(r -> r.present() != null
                    && r.present().contains(new Report.Found("siltscope", "4.2.0"))));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aCheckThatDoesNotHoldEndsTheJobInItsWords() throws IOException {
        server.work = withSteps(step(StepKind.CHECK, null, "needs 3 GiB free"), step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.FAILED));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.FAILED).first()
                    .satisfies(p -> assertThat(p.message()).isEqualTo("needs 3 GiB free"));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aWaitIsNoFailure() throws IOException {
        server.work = withSteps(step(StepKind.WAIT, null, "needs diskFreeGiB ge 3, has 2"), step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.WAITING).first()
                    .satisfies(p -> assertThat(p.message()).isEqualTo("waits: needs diskFreeGiB ge 3, has 2"))
                    .satisfies(p -> assertThat(p.waits().reason()).isEqualTo(WaitReason.TRY));
            assertThat(reached(JobState.FAILED)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }

    /** However often it waited: a wait costs no try. */
    @Test
    void whatWaitedGoesOnWhenItMay() throws IOException {
        server.work = withSteps(step(StepKind.WAIT, null, "needs diskFreeGiB ge 3, has 2"), step(StepKind.RUN, null, null),
                step(StepKind.LOOK, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> progress().stream().filter(p -> p.state() == JobState.WAITING).count() > 6);
            server.work = withSteps(step(StepKind.WAIT, null, null), step(StepKind.RUN, null, null), step(StepKind.LOOK, null, null));
            until(() -> reached(JobState.DONE));
            assertThat(reached(JobState.FAILED)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void whatFailsIsTriedAgainLaterEachTime() throws IOException {
        server.work = withSteps(step(StepKind.CHECK, null, "needs 3 GiB free"));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> progress().stream().filter(p -> p.state() == JobState.FAILED).count() == 3);
            List<Progress> failed = progress().stream().filter(p -> p.state() == JobState.FAILED).toList();
            assertThat(failed).allSatisfy(p -> assertThat(p.waits().reason()).isEqualTo(WaitReason.TRY));
            List<Long> waits = failed.stream().map(p -> Duration.between(p.at(), p.waits().until()).toMillis()).toList();
            assertThat(waits).as("a quarter of an hour, one, and four").containsExactly(100L, 400L, 1_600L);
            assertThat(progress()).filteredOn(p -> p.state() == JobState.RUNNING).hasSizeGreaterThanOrEqualTo(3);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void contentThatNobodyHasIsWaitedForAndSaidSo() throws IOException {
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        server.contents = (from, to) -> null;
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.WAITING).first()
                    .satisfies(p -> assertThat(p.waits().reason()).isEqualTo(WaitReason.CONTENT));
            assertThat(progress()).filteredOn(p -> p.fetching() != null).first()
                    .satisfies(p -> assertThat(p.fetching().all()).isEqualTo(INSTALLER.length));
            server.contents = (from, to) -> INSTALLER;
            until(() -> reached(JobState.DONE));
            assertThat(reached(JobState.FAILED)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void whatHasBeenPutOnIsNotPutOnAgain() throws IOException {
        server.work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            int told = server.asked.size();
            until(() -> server.asked.stream().skip(told).filter(a -> a.startsWith("/device/v2/work")).count() > 4);
            assertThat(progress()).filteredOn(p -> p.state() == JobState.DONE).hasSize(1);
            assertThat(progress()).filteredOn(p -> p.message().equals("fetching")).hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    /** Any of them: the one that is open, though the other is not, and the longer of two that are. */
    @Test
    void oneOfSeveralWindowsIsEnough() throws IOException {
        Work whole = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        Window closed = new Window(Set.of(LocalDateTime.now().plusDays(3).getDayOfWeek()), LocalTime.NOON, 60);
        Window short1 = new Window(Set.of(DayOfWeek.values()), LocalTime.now().minusMinutes(10), 11);
        Window open = new Window(Set.of(DayOfWeek.values()), LocalTime.now().minusMinutes(10), 120);
        server.work = new Work(whole.jobs(), whole.checks(), List.of(), List.of(closed, short1, open));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(reached(JobState.WAITING)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void nothingThatWasChangedOnTheWayIsRun() throws IOException {
        server.tampers = true;
        server.work = withSteps(step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> server.asked.stream().filter(a -> a.startsWith("/device/v2/work")).count() > 3);
            assertThat(progress()).isEmpty();
            server.tampers = false;
            until(() -> reached(JobState.RUNNING));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void anAnswerThatIsNotSignedNeitherMovesNorStopsADevice() throws IOException {
        server.work = withSteps(step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.RUNNING));
            server.signs = false;
            int before = server.asked.size();
            until(() -> server.asked.size() > before + 5);
            int told = server.reports.size();
            server.signs = true;
            until(() -> server.reports.size() > told);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aDeviceWhoseClockIsWrongGoesByTheServers() throws IOException {
        server.clockAhead = Duration.ofDays(400);
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> server.reports.size() > 1);
            server.clockAhead = Duration.ofDays(-400);
            int told = server.asked.size();
            server.work = new Work(List.of(), List.of(Work.Check.inventory("graphkit", "Graphkit")), List.of(), List.of());
            until(() -> server.asked.size() > told + 6);
            assertThat(server.asked.stream().skip(told).filter(a -> a.startsWith("/device/v2/work")).count())
                    .as("refused once, then signed by the server's time").isGreaterThan(2);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aDeviceFollowsToTheServersNewKey() throws IOException {
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> server.reports.size() > 1);
            server.rollKey();
            until(server::wasAskedWithNewKey);
            int told = server.asked.size();
            until(() -> server.asked.size() > told + 3);
            assertThat(server.asked.stream().skip(told).map(a -> a.substring(a.indexOf('@'))).distinct()).hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }
}
