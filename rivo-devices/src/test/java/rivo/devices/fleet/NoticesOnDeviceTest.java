package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rivo.devices.protocol.Courtesy;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.Courtesy.Notice;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.QuietHours;
import rivo.devices.protocol.Report.Told;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.WaitReason;
import rivo.devices.protocol.Way;
import rivo.devices.protocol.Window;
import rivo.devices.protocol.Work;

/** What a simulated device tells and asks its people, against a server that says what the test wants. A quarter of an hour takes 150 ms here. */
class NoticesOnDeviceTest {

    private static final Work.Person ROWENA = new Work.Person("u1", "rowena.elmby", "Rowena Elmby");
    private static final long SEED = 5;
    private static final String DEVICE = "QB-LAB-014";
    private static final Duration QUARTER = Duration.ofMillis(150);
    private static final Interruption ASKS = new Interruption(Way.ASK, 2, 8 * 3600, 900);

    @TempDir
    private Path folder;
    private FakeServer server;

    @BeforeEach
    void serve() throws IOException {
        server = new FakeServer();
    }

    @AfterEach
    void stop() {
        server.close();
    }

    /** @param there whether somebody is signed in; they leave every answer to their shelf */
    private SimulatedFleet fleet(boolean there) throws IOException {
        FleetSettings settings = new FleetSettings(server.url(), folder, SEED, Duration.ofMillis(40), Duration.ofSeconds(1), Duration.ZERO,
                Duration.ofMillis(5), QUARTER, Duration.ZERO);
        SimulatedFleet fleet = new SimulatedFleet(settings, new Roster(List.of(new Roster.Entry(DEVICE, server.token(), true, Map.of("arch", "x64"), Map.of(),
                there ? List.of(ROWENA.account()) : List.of(), Map.of(), true))));
        fleet.start();
        return fleet;
    }

    private static Notice notice(NoticeKind kind) {
        return new Notice(kind, null, Map.of("en", kind.word() + " {time}"), kind.asks() ? Map.of("en", "last " + kind.word() + " {time}") : null);
    }

    private static Courtesy courtesy(Interruption restart, NoticeKind... told) {
        return new Courtesy(Stream.of(told).map(NoticesOnDeviceTest::notice).toList(), restart, Interruption.WAITS);
    }

    private static Job.Step run(ExitMeaning meaning) {
        return new Job.Step(StepKind.RUN, "run", "x", 60, null, null, false, null, Map.of(), List.of(new ExitCode(0, meaning, 0)), false, null, null, null, null);
    }

    /** One that nothing befalls, however luck has it: the first title of this beginning. */
    private static Job job(String title, Courtesy courtesy, Job.Step... steps) {
        for (int i = 0;; i++) {
            Job job = new Job(title + i, title, JobAction.INSTALL, "1.0", List.of(), List.of(steps)).with(courtesy);
            Luck luck = new Luck(SEED, DEVICE);
            if (luck.mishap(DeviceJobs.key(job), 1) == Luck.Mishap.NONE && luck.perMille("open siltscope.exe for " + DeviceJobs.key(job)) < 400) {
                return job;
            }
        }
    }

    private static Work work(Job... jobs) {
        return new Work(List.of(jobs), List.of(), List.of(), List.of()).withPeople(List.of(ROWENA), List.of());
    }

    private static Work.Answered says(Told asked, NoticeAnswer answer, Instant until) {
        return new Work.Answered(asked.notice(), answer, until, ROWENA.id());
    }

    private List<Told> told() {
        return new ArrayList<>(server.reports).stream().filter(report -> report.notices() != null).flatMap(report -> report.notices().stream()).toList();
    }

    private List<Told> told(NoticeKind kind, NoticeState state) {
        return told().stream().filter(one -> one.kind() == kind && one.state() == state).toList();
    }

    private List<Progress> progress() {
        return new ArrayList<>(server.reports).stream().filter(r -> r.progress() != null).flatMap(r -> r.progress().stream()).toList();
    }

    private boolean isDone(Job job) {
        return progress().stream().anyMatch(p -> p.title().equals(job.title()) && p.state() == JobState.DONE);
    }

    private static void until(BooleanSupplier condition) {
        Eventually.within(Duration.ofSeconds(20), condition);
    }

    private interface During {
        void happens() throws Exception;
    }

    private void with(boolean there, During during) throws Exception {
        try (SimulatedFleet fleet = fleet(there)) {
            assertThat(fleet).isNotNull();
            during.happens();
        }
    }

    @Test
    void aRestartIsPutOffTwiceAndThenDone() throws Exception {
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.RESTART, NoticeKind.DONE), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(true, () -> {
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).size() == 1);
            Told asked = told(NoticeKind.RESTART, NoticeState.SHOWN).get(0);
            assertThat(asked.person()).isEqualTo(ROWENA.id());
            assertThat(asked.left()).isEqualTo(2);
            assertThat(asked.titles()).containsExactly(job.title());
            server.work = work(job).withNotices(null, List.of(says(asked, NoticeAnswer.LATER, Instant.now().plusMillis(1_500))));
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).size() == 2);
            Told put = told(NoticeKind.RESTART, NoticeState.PUT_OFF).get(0);
            assertThat(put.answer()).isEqualTo(NoticeAnswer.LATER);
            assertThat(put.left()).isEqualTo(1);
            server.work = work(job).withNotices(null, List.of(says(asked, NoticeAnswer.LATER, Instant.now().plusMillis(1_500))));
            until(() -> told(NoticeKind.RESTART, NoticeState.PUT_OFF).size() == 2);
            assertThat(isDone(job)).as("before it has restarted").isFalse();
            until(() -> told(NoticeKind.RESTART, NoticeState.COUNTING_DOWN).size() == 1);
            until(() -> isDone(job));
        });
        assertThat(told()).extracting(Told::state).containsSubsequence(NoticeState.SHOWN, NoticeState.PUT_OFF, NoticeState.SHOWN, NoticeState.PUT_OFF,
                NoticeState.COUNTING_DOWN, NoticeState.DONE);
        assertThat(progress()).filteredOn(p -> p.state() == JobState.WAITING).extracting(Progress::message)
                .anyMatch(said -> said.contains("which Rowena Elmby is asked for")).anyMatch(said -> said.contains("put off by Rowena Elmby") && said.endsWith("(2 of 2)"))
                .anyMatch(said -> said.contains("waits for a restart, which comes"));
        assertThat(progress()).filteredOn(p -> p.state() == JobState.WAITING).allMatch(p -> p.waits() != null && p.waits().reason() == WaitReason.RESTART);
        assertThat(Files.readAllLines(folder.resolve("notices.log"))).extracting(line -> line.split(" ", 5)[3] + line.split(" ", 5)[4].replaceAll("\\w+ \\d+ .*", ""))
                .containsSubsequence("restart:restart ", "restart:last restart ", "done:done {time}");
    }

    @Test
    void whoAgreesHasItAtOnce() throws Exception {
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(true, () -> {
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).size() == 1);
            server.work = work(job).withNotices(null, List.of(says(told(NoticeKind.RESTART, NoticeState.SHOWN).get(0), NoticeAnswer.NOW, null)));
            until(() -> isDone(job));
        });
        assertThat(told()).filteredOn(one -> one.answer() != null).extracting(Told::answer).containsExactly(NoticeAnswer.NOW);
    }

    @ParameterizedTest
    @EnumSource(value = Way.class, names = {"ASK", "NIGHT", "NOW"})
    void withNobodyThereItRestartsAtOnce(Way way) throws Exception {
        Job job = job("siltscope", courtesy(new Interruption(way, 2, 8 * 3600, 900), NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(false, () -> until(() -> isDone(job)));
        assertThat(told(NoticeKind.RESTART, NoticeState.SHOWN)).isEmpty();
    }

    @Test
    void underNoneItStaysWaiting() throws Exception {
        Job job = job("siltscope", courtesy(new Interruption(Way.NONE, 2, 8 * 3600, 900), NoticeKind.RESTART), run(ExitMeaning.RESTART));
        Job other = job("graphkit", Courtesy.SILENT, run(ExitMeaning.DONE));
        server.work = work(job, other);
        with(true, () -> {
            until(() -> isDone(other));
            Thread.sleep(QUARTER.toMillis() * 3);
            assertThat(isDone(job)).isFalse();
            assertThat(told()).isEmpty();
        });
    }

    @Test
    void underNowItCountsDownAndCannotBePutOff() throws Exception {
        Job job = job("siltscope", courtesy(new Interruption(Way.NOW, 2, 8 * 3600, 1800), NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(true, () -> {
            until(() -> !told(NoticeKind.RESTART, NoticeState.COUNTING_DOWN).isEmpty());
            server.work = work(job).withNotices(null, List.of(says(told().get(0), NoticeAnswer.LATER, Instant.now().plusMillis(1_500))));
            until(() -> isDone(job));
        });
        assertThat(told(NoticeKind.RESTART, NoticeState.PUT_OFF)).isEmpty();
    }

    @Test
    void whatIsToldWhileAnotherJobIsUnderWayIsSaidToComeNext() throws Exception {
        Job.Step[] many = Stream.generate(() -> Job.Step.of(StepKind.COPY, "copy", "x", 60)).limit(400).toArray(Job.Step[]::new);
        Job first = job("graphkit", Courtesy.SILENT, many);
        Job second = job("siltscope", Courtesy.SILENT, run(ExitMeaning.DONE));
        server.work = work(first);
        with(true, () -> {
            until(() -> progress().stream().anyMatch(p -> p.state() == JobState.RUNNING));
            server.work = work(first, second);
            until(() -> progress().stream().anyMatch(p -> p.title().equals(second.title())));
            assertThat(isDone(first)).as("before the first is done").isFalse();
        });
        assertThat(progress()).filteredOn(p -> p.title().equals(second.title())).extracting(p -> p.state() + " " + p.message()).containsExactly("WAITING begins after graphkit");
    }

    @Test
    void severalThatNeedARestartShareIt() throws Exception {
        Job one = job("siltscope", courtesy(ASKS, NoticeKind.RESTART), run(ExitMeaning.RESTART));
        Job other = job("graphkit", courtesy(ASKS, NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(one, other);
        with(true, () -> {
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).stream().anyMatch(told -> told.titles().size() == 2));
            assertThat(told()).extracting(Told::notice).containsOnly(told().get(0).notice());
            server.work = work(one, other).withNotices(null, List.of(says(told().get(0), NoticeAnswer.NOW, null)));
            until(() -> isDone(one) && isDone(other));
        });
        assertThat(told(NoticeKind.RESTART, NoticeState.DONE)).hasSize(1);
    }

    @Test
    void whatIsWithdrawnIsNotAskedForAnyMore() throws Exception {
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(true, () -> {
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).size() == 1);
            Told asked = told().get(0);
            server.work = work();
            until(() -> !told(NoticeKind.RESTART, NoticeState.OVER).isEmpty());
            server.work = work().withNotices(null, List.of(says(asked, NoticeAnswer.NOW, null)));
            until(() -> told().size() > 2);
        });
        assertThat(told()).extracting(Told::state).containsExactly(NoticeState.SHOWN, NoticeState.OVER, NoticeState.OVER);
        assertThat(isDone(job)).isFalse();
    }

    @Test
    void anAnswerThatTheServerRefusesDoesNotPutItOff() throws Exception {
        server.refusesAnswers = true;
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(job);
        with(true, () -> {
            until(() -> told(NoticeKind.RESTART, NoticeState.SHOWN).size() == 1);
            server.work = work(job).withNotices(null, List.of(says(told().get(0), NoticeAnswer.LATER, Instant.now().plusSeconds(1))));
            until(() -> isDone(job));
        });
        assertThat(told()).extracting(Told::state).containsSubsequence(NoticeState.PUT_OFF, NoticeState.COUNTING_DOWN, NoticeState.DONE);
    }

    @Test
    void programsAreClosedByWhoeverIsAskedAndTheJobGoesOnWhereItWas() throws Exception {
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.CLOSE), Job.Step.of(StepKind.COPY, "copy", "x", 60),
                Job.Step.of(StepKind.CLOSE, "close Siltscope", "siltscope.exe", 60), run(ExitMeaning.DONE));
        Job other = job("graphkit", Courtesy.SILENT, run(ExitMeaning.DONE));
        server.work = work(job, other);
        with(true, () -> {
            until(() -> isDone(other));
            assertThat(isDone(job)).as("while it waits").isFalse();
            Told asked = told(NoticeKind.CLOSE, NoticeState.SHOWN).get(0);
            server.work = work(job, other).withNotices(null, List.of(says(asked, NoticeAnswer.NOW, null)));
            until(() -> isDone(job));
        });
        assertThat(progress()).filteredOn(p -> p.title().equals(job.title()) && p.message().equals("copy")).as("the first step").hasSize(1);
        assertThat(progress()).filteredOn(p -> p.waits() != null).extracting(p -> p.waits().reason()).contains(WaitReason.ANSWER);
    }

    @Test
    void whoeverIsAskedToCloseProgramsIsAskedOnceOverARestartOfTheDevice() throws Exception {
        Job job = job("siltscope", courtesy(ASKS, NoticeKind.CLOSE), Job.Step.of(StepKind.CLOSE, "close", "siltscope.exe", 60), run(ExitMeaning.DONE));
        server.work = work(job);
        with(true, () -> until(() -> told(NoticeKind.CLOSE, NoticeState.SHOWN).size() == 1));
        String asked = told().get(0).notice();
        with(true, () -> {
            until(() -> progress().stream().filter(p -> p.state() == JobState.WAITING).count() > 1);
            server.work = work(job).withNotices(null, List.of(new Work.Answered(asked, NoticeAnswer.NOW, null, ROWENA.id())));
            until(() -> isDone(job));
        });
        assertThat(told()).extracting(Told::notice).containsOnly(asked);
    }

    @Test
    void nobodysTimeRunsOutBeforeTheyHaveBeenAsked() {
        Instant now = Instant.parse("2026-12-04T18:00:00Z");
        Instant late = now.plus(QUARTER.multipliedBy(40));
        Ask ask = Ask.of("1", NoticeKind.RESTART, "job", "title", ASKS, QUARTER, now);
        assertThat(ask.at(late).countsDown()).isFalse();
        Ask shown = ask.shownTo(ROWENA.id(), late);
        assertThat(shown.last()).isEqualTo(late.plus(QUARTER.multipliedBy(32)));
        assertThat(shown.at(shown.last().minusMillis(1)).countsDown()).isFalse();
        assertThat(shown.at(shown.last()).countsDown()).isTrue();
        assertThat(shown.at(shown.last()).ends()).isEqualTo(shown.last().plus(QUARTER));
    }

    @Test
    void programsAreEndedAtTheLastResort() throws Exception {
        Job job = job("siltscope", courtesy(new Interruption(Way.NONE, 0, 3600, 900), NoticeKind.CLOSE), Job.Step.of(StepKind.CLOSE, "close", "siltscope.exe", 60),
                run(ExitMeaning.DONE));
        server.work = work(job);
        with(true, () -> until(() -> isDone(job)));
        assertThat(told()).extracting(Told::state).containsExactly(NoticeState.COUNTING_DOWN, NoticeState.DONE);
    }

    @Test
    void eachThingIsToldOnceEvenWhereTheDeviceHasForgottenThatItWasOn() throws Exception {
        Courtesy courtesy = courtesy(new Interruption(Way.NONE, 0, 3600, 900), NoticeKind.START, NoticeKind.RESTART, NoticeKind.DONE);
        Job job = job("siltscope", courtesy, run(ExitMeaning.RESTART));
        server.work = work(job);
        BooleanSupplier isWaiting = () -> progress().stream().anyMatch(p -> p.state() == JobState.WAITING);
        with(true, () -> until(isWaiting));
        server.reports.clear();
        Instant off = Instant.now();
        with(true, () -> {
            until(() -> server.reports.size() > 0);
            Thread.sleep(QUARTER.toMillis() * 2);
        });
        assertThat(told()).as("after it was switched off and on").isEmpty();
        // What it may not know to have been heard is said again.
        assertThat(progress()).as("begun anew").allMatch(p -> p.at().isBefore(off));
    }

    @Test
    void inQuietHoursNothingIsToldButCountdowns() throws Exception {
        LocalTime now = LocalTime.now();
        QuietHours quiet = new QuietHours(now.minusHours(1), now.plusHours(1));
        Job told = job("graphkit", courtesy(ASKS, NoticeKind.START, NoticeKind.DONE), run(ExitMeaning.DONE));
        Job counts = job("siltscope", courtesy(new Interruption(Way.NOW, 0, 3600, 900), NoticeKind.RESTART), run(ExitMeaning.RESTART));
        server.work = work(told, counts).withNotices(quiet, List.of());
        with(true, () -> {
            until(() -> isDone(counts));
            assertThat(told().stream().map(Told::state)).doesNotContain(NoticeState.SHOWN);
            assertThat(told(NoticeKind.START, NoticeState.OVER)).as("overtaken by its end").hasSize(1);
            server.work = work().withNotices(null, List.of());
            until(() -> told(NoticeKind.DONE, NoticeState.SHOWN).size() == 1);
        });
        assertThat(told(NoticeKind.START, NoticeState.SHOWN)).isEmpty();
    }

    @Test
    void whatIsReadOnTheShelfIsNotShownByTheDevice() throws Exception {
        Job job = job("graphkit", courtesy(ASKS, NoticeKind.DONE), run(ExitMeaning.DONE));
        server.work = work(job);
        with(false, () -> {
            until(() -> told(NoticeKind.DONE, NoticeState.HELD).size() == 1);
            server.work = work(job).withNotices(null, List.of(says(told().get(0), NoticeAnswer.READ, null)));
            until(() -> told(NoticeKind.DONE, NoticeState.DONE).size() == 1);
        });
        assertThat(told(NoticeKind.DONE, NoticeState.SHOWN)).isEmpty();
    }

    @Test
    void whatIsComingIsToldAsLongBeforeAsIsSaid() throws Exception {
        LocalTime opens = LocalTime.now().plusMinutes(90);
        Window window = new Window(EnumSet.allOf(DayOfWeek.class), opens, 60);
        Courtesy courtesy = new Courtesy(List.of(new Notice(NoticeKind.COMING, 86_400, Map.of("en", "a day before"), null),
                new Notice(NoticeKind.COMING, 7200, Map.of("en", "two hours before {time}"), null),
                new Notice(NoticeKind.COMING, 3600, Map.of("en", "an hour before"), null)), ASKS, Interruption.WAITS);
        Job job = job("siltscope", courtesy, run(ExitMeaning.DONE));
        server.work = new Work(List.of(job), List.of(), List.of(), List.of(window)).withPeople(List.of(ROWENA), List.of());
        with(true, () -> {
            until(() -> told(NoticeKind.COMING, NoticeState.SHOWN).size() == 1);
            Thread.sleep(QUARTER.toMillis() * 2);
        });
        assertThat(told()).as("the nearest alone, once").hasSize(1);
        assertThat(Files.readString(folder.resolve("notices.log"))).contains("coming: two hours before ").doesNotContain("{time}");
    }

    @Test
    void itsPeopleAnswerByThemselves() {
        SimulatedPerson person = new SimulatedPerson(new Luck(SEED, DEVICE), true, QUARTER);
        Instant now = Instant.parse("2026-12-04T18:00:00Z");
        List<NoticeAnswer> answers = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            Ask ask = Ask.of(String.valueOf(i), NoticeKind.RESTART, "job", "title", ASKS, QUARTER, now).shownTo(ROWENA.id(), now);
            assertThat(person.says(ask, now)).as("before they have thought about it").isNull();
            SimulatedPerson.Says says = person.says(ask, now.plus(QUARTER.multipliedBy(2)));
            if (says != null) {
                answers.add(says.answer());
                assertThat(says.answer() != NoticeAnswer.LATER || ask.mayBePutOff(Objects.requireNonNull(says.until()))).isTrue();
            }
        }
        assertThat(answers).contains(NoticeAnswer.NOW, NoticeAnswer.LATER, NoticeAnswer.AT_SIGN_OUT).hasSizeLessThan(200);
    }
}
