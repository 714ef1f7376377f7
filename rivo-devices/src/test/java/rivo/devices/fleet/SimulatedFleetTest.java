package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Window;
import rivo.devices.protocol.Work;
import tools.jackson.databind.json.JsonMapper;

/** One simulated device against a server that says what the test wants. */
class SimulatedFleetTest {

    private static final byte[] INSTALLER = "installer".getBytes(StandardCharsets.UTF_8);
    private static final JsonMapper JSON = new JsonMapper();

    @TempDir
    private Path folder;
    private HttpServer server;
    private final Queue<Report> reports = new ConcurrentLinkedQueue<>();
    private final Queue<String> enrolments = new ConcurrentLinkedQueue<>();
    private volatile byte[] content = INSTALLER;
    private volatile Work work = new Work(List.of(), List.of(Work.Check.inventory("siltscope", "Siltscope Lab")),
            List.of(), List.of());
    private volatile boolean refusesEnrolment;

    @BeforeEach
    void serve() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newFixedThreadPool(2));
        server.createContext("/device/v1/enrolments", exchange -> {
            enrolments.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            answer(exchange, refusesEnrolment ? 401 : 201, JSON.writeValueAsBytes(new Enrolled("d1", "QB-LAB-014",
                    "MDEyMzQ1Njc4OWFiY2RlZjAxMjM0NTY3ODlhYmNkZWY=")));
        });
        server.createContext("/device/v1/devices/d1/work", exchange -> answer(exchange, 200,
                JSON.writeValueAsBytes(work)));
        server.createContext("/device/v1/devices/d1/reports", exchange -> {
            Report report = JSON.readValue(exchange.getRequestBody().readAllBytes(), Report.class);
            reports.add(report);
            answer(exchange, 200, JSON.writeValueAsBytes(new ReportAnswer(true, report.number())));
        });
        server.createContext("/device/v1/content", exchange -> answer(exchange, 206, content));
        server.start();
    }

    private static void answer(HttpExchange exchange, int status, byte[] body) throws IOException {
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private SimulatedFleet fleet(Map<String, String> software) throws IOException {
        URI url = URI.create("http://127.0.0.1:" + server.getAddress().getPort());
        FleetSettings settings = new FleetSettings(url, folder, 5, Duration.ofMillis(60), Duration.ofSeconds(1),
                Duration.ZERO, Duration.ofMillis(10));
        SimulatedFleet fleet = new SimulatedFleet(settings, new Roster(List.of(
                new Roster.Entry("QB-LAB-014", "token", true, Map.of("arch", "x64"), software))));
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
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(10);
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("in time").isLessThan(end);
            try {
                Thread.sleep(10);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private List<Progress> progress() {
        return reports.stream().filter(r -> r.progress() != null).flatMap(r -> r.progress().stream()).toList();
    }

    private boolean reached(JobState state) {
        return progress().stream().anyMatch(p -> p.state() == state);
    }

    @Test
    void aDeviceEnrolsAndSaysWhatItIs() throws IOException {
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.1.0"))) {
            until(() -> reports.size() > 1);
            List<Report> told = List.copyOf(reports);
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
        work = within(whole, closed);
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            assertThat(progress().get(0).message()).startsWith("waits for its window, which opens ");
            assertThat(reached(JobState.RUNNING)).isFalse();
            work = within(whole, new Window(Set.of(DayOfWeek.values()), LocalTime.now().minusMinutes(10), 120));
            until(() -> reached(JobState.DONE));
            assertThat(progress().stream().filter(p -> p.state() == JobState.WAITING)).as("said once").hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aJobThatIsLongerThanTheWindowHoldsNoShorterOneUp() throws IOException {
        Job longer = new Job("cad", "CAD", JobAction.INSTALL, "1", List.of(), List.of(Job.Step.of(StepKind.RUN, "drawing", "x", 86_000)));
        Work whole = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        work = new Work(List.of(longer, whole.jobs().get(0)), whole.checks(), List.of(), List.of(new Window(Set.of(DayOfWeek.values()),
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
        work = withSteps(first, step(StepKind.COPY, null, null), leading(5, null, null), step(StepKind.COPY, null, null),
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
        work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress()).extracting(Progress::message).startsWith("fetching", "checking", "running",
                    "looking");
            until(() -> reports.stream().anyMatch(r -> r.present() != null
                    && r.present().contains(new Report.Found("siltscope", "4.2.0"))));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void contentWithAnotherHashIsNeverRun() throws IOException {
        work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        content = "poisoned!".getBytes(StandardCharsets.UTF_8);
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
        work = siltscope(JobAction.INSTALL, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.2"))) {
            until(() -> !reports.isEmpty());
            assertThat(progress()).isEmpty();
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aRemovalTakesItOff() throws IOException {
        work = siltscope(JobAction.REMOVE, RunningJob.sha256(INSTALLER));
        try (SimulatedFleet fleet = fleet(Map.of("Siltscope Lab", "4.2"))) {
            until(() -> reports.stream().anyMatch(r -> r.present() != null && r.present().isEmpty()));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void itGoesOnWithItsKeyAfterARestart() throws IOException {
        try (SimulatedFleet first = fleet(Map.of())) {
            until(() -> !reports.isEmpty());
            assertThat(first).isNotNull();
        }
        long last = reports.stream().mapToLong(Report::number).max().orElseThrow();
        reports.clear();
        assertThat(SimulatedFleet.enrolledIn(folder)).containsExactly("QB-LAB-014");
        try (SimulatedFleet second = fleet(Map.of())) {
            until(() -> !reports.isEmpty());
            assertThat(enrolments).hasSize(1);
            // A kill between the answer and the file makes it say the last number again.
            assertThat(reports.peek().number()).isGreaterThanOrEqualTo(last);
            assertThat(second).isNotNull();
        }
    }

    @Test
    void aDeviceThatIsRefusedStopsAsking() throws Exception {
        refusesEnrolment = true;
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> !enrolments.isEmpty());
            Thread.sleep(300);
            assertThat(enrolments).hasSize(1);
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aSkippedStepIsReportedAndLeftOut() throws IOException {
        work = withSteps(step(StepKind.RUN, null, null), step(StepKind.COPY, "needs model co \"Intake\", has Bench 7", null),
                step(StepKind.LOOK, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.DONE));
            assertThat(progress()).extracting(Progress::message).contains("skipped: needs model co \"Intake\", has Bench 7");
            until(() -> reports.stream().anyMatch(r -> r.present() != null
                    && r.present().contains(new Report.Found("siltscope", "4.2.0"))));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aCheckThatDoesNotHoldEndsTheJobInItsWords() throws IOException {
        work = withSteps(step(StepKind.CHECK, null, "needs 3 GiB free"), step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.FAILED));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.FAILED).first()
                    .satisfies(p -> assertThat(p.message()).isEqualTo("needs 3 GiB free"));
            assertThat(fleet).isNotNull();
        }
    }

    @Test
    void aWaitIsNoFailureAndGoesOnWhenItMay() throws IOException {
        work = withSteps(step(StepKind.WAIT, null, "needs diskFreeGiB ge 3, has 2"), step(StepKind.RUN, null, null));
        try (SimulatedFleet fleet = fleet(Map.of())) {
            until(() -> reached(JobState.WAITING));
            assertThat(progress()).filteredOn(p -> p.state() == JobState.WAITING).first()
                    .satisfies(p -> assertThat(p.message()).isEqualTo("waits: needs diskFreeGiB ge 3, has 2"));
            assertThat(reached(JobState.FAILED)).isFalse();
            assertThat(fleet).isNotNull();
        }
    }
}
