package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.devices.protocol.Courtesy;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.StepKind;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.Delivery.Deferral;
import rivo.server.assignment.Delivery.Interruption;
import rivo.server.assignment.Delivery.Tell;

/** What people are told and asked while a job is carried out, as its assignment says. */
class CourtesiesTest {

    private static Job.Step run(int seconds, ExitMeaning... meanings) {
        List<ExitCode> codes = Stream.of(meanings).map(meaning -> new ExitCode(meaning.ordinal(), meaning, 0)).toList();
        return new Job.Step(StepKind.RUN, "Run", "setup", seconds, null, null, false, null, Map.of(), codes, false, null, null, null, null);
    }

    private static Job job(JobAction action, @Nullable String version, Job.Step... steps) {
        return new Job("siltscope", "Siltscope Lab", action, version, List.of(), List.of(steps));
    }

    private static Job installing(Job.Step... steps) {
        return job(JobAction.INSTALL, "4.2.0", steps);
    }

    private static Delivery.Courtesy told(@Nullable Boolean start, @Nullable Boolean done, String... before) {
        return new Delivery.Courtesy(new Tell(List.of(before), start, done), false, null, null);
    }

    private static Delivery.Courtesy interrupted(@Nullable Interruption restart, @Nullable Interruption signOut) {
        return new Delivery.Courtesy(null, false, restart, signOut);
    }

    private static List<NoticeKind> kinds(Job job, Delivery.@Nullable Courtesy said) {
        return Courtesies.of(job, said).notices().stream().map(Courtesy.Notice::kind).toList();
    }

    private static String english(Job job, Delivery.@Nullable Courtesy said, NoticeKind kind) {
        return Objects.requireNonNull(Objects.requireNonNull(Courtesies.of(job, said).notice(kind)).words().get("en"));
    }

    @Test
    void byDefaultTheEndIsToldAndNothingBefore() {
        assertThat(kinds(installing(run(60)), null)).containsExactly(NoticeKind.DONE, NoticeKind.FAILED);
        assertThat(kinds(job(JobAction.REMOVE, null, run(60)), null)).containsExactly(NoticeKind.REMOVED, NoticeKind.FAILED);
    }

    @Test
    void anAssignmentSaysWhatIsTold() {
        assertThat(kinds(installing(run(60)), told(true, false))).containsExactly(NoticeKind.START, NoticeKind.FAILED);
        assertThat(kinds(installing(run(60)), told(false, true))).containsExactly(NoticeKind.DONE, NoticeKind.FAILED);
        Courtesy coming = Courtesies.of(installing(run(60)), told(null, null, "PT1H", "PT10M"));
        assertThat(coming.notices()).extracting(Courtesy.Notice::kind).containsExactly(NoticeKind.COMING, NoticeKind.COMING, NoticeKind.DONE, NoticeKind.FAILED);
        assertThat(coming.notices()).extracting(Courtesy.Notice::beforeSeconds).containsExactly(3600, 600, null, null);
        assertThat(Courtesies.of(installing(run(60)), told(null, null, "P36500D")).notices().get(0).beforeSeconds()).isEqualTo(Integer.MAX_VALUE);
    }

    @Test
    void quietLeavesOnlyWhatAsks() {
        Delivery.Courtesy quiet = new Delivery.Courtesy(new Tell(List.of("PT1H"), true, true), true, null, null);
        assertThat(kinds(installing(run(60)), quiet)).isEmpty();
        assertThat(kinds(installing(run(60, ExitMeaning.RESTART)), quiet)).containsExactly(NoticeKind.RESTART);
    }

    @ParameterizedTest
    @CsvSource({"ask, true", "now, true", "night, true", "none, false", "wait, false"})
    void aRestartIsSpokenOfWhereOneMayComeAndItsWaySpeaks(String way, boolean speaks) {
        Interruption so = new Interruption(way, null);
        assertThat(kinds(installing(run(60, ExitMeaning.DONE, ExitMeaning.RESTART)), interrupted(so, null)).contains(NoticeKind.RESTART)).isEqualTo(speaks);
        assertThat(kinds(installing(run(60, ExitMeaning.DONE)), interrupted(so, null))).as("no code means a restart").doesNotContain(NoticeKind.RESTART);
        assertThat(kinds(installing(run(60, ExitMeaning.SIGN_OUT)), interrupted(null, so)).contains(NoticeKind.SIGN_OUT)).isEqualTo(speaks);
        assertThat(kinds(installing(run(60, ExitMeaning.RESTART)), interrupted(new Interruption("none", null), so))).as("that of the other")
                .doesNotContain(NoticeKind.SIGN_OUT, NoticeKind.RESTART);
    }

    @Test
    void aRestartIsAskedForAndASignOutWaitsWhereNothingIsSaid() {
        Courtesy usual = Courtesies.of(installing(run(60, ExitMeaning.RESTART, ExitMeaning.SIGN_OUT)), null);
        assertThat(usual.restart()).isEqualTo(Courtesy.Interruption.USUAL);
        assertThat(usual.signOut()).isEqualTo(Courtesy.Interruption.WAITS);
        assertThat(usual.notices()).extracting(Courtesy.Notice::kind).contains(NoticeKind.RESTART).doesNotContain(NoticeKind.SIGN_OUT);
        assertThat(Objects.requireNonNull(usual.notice(NoticeKind.RESTART)).lastWords()).isNotNull();
        assertThat(Objects.requireNonNull(usual.notice(NoticeKind.DONE)).lastWords()).isNull();
    }

    @Test
    void howOftenAndHowLongItMayBePutOffIsAsTheAssignmentSaysElseAsUsual() {
        Courtesy.Interruption usual = Courtesy.Interruption.USUAL;
        Job job = installing(run(60));
        assertThat(Courtesies.of(job, interrupted(new Interruption("ask", new Deferral(5, "P1D")), null)).restart())
                .isEqualTo(new Courtesy.Interruption(usual.way(), 5, 86_400, usual.countdownSeconds()));
        assertThat(Courtesies.of(job, interrupted(new Interruption("ask", new Deferral(0, null)), null)).restart())
                .isEqualTo(new Courtesy.Interruption(usual.way(), 0, usual.withinSeconds(), usual.countdownSeconds()));
        assertThat(Courtesies.of(job, interrupted(new Interruption("ask", new Deferral(null, "PT30M")), null)).restart())
                .isEqualTo(new Courtesy.Interruption(usual.way(), usual.times(), 1800, usual.countdownSeconds()));
        assertThat(Courtesies.of(job, interrupted(new Interruption("now", null), null)).restart().countdownSeconds()).as("five minutes").isEqualTo(300);
        assertThat(Courtesies.of(job, interrupted(null, new Interruption("now", null))).signOut().countdownSeconds()).isEqualTo(300);
        assertThat(Courtesies.of(job, interrupted(new Interruption("ask", new Deferral(1, "P36500D")), null)).restart().withinSeconds())
                .isEqualTo(Integer.MAX_VALUE);
    }

    @ParameterizedTest
    @CsvSource({"1, 1", "60, 1", "61, 2", "1200, 20"})
    void howLongItMayTakeIsToldInWholeMinutes(int seconds, int minutes) {
        assertThat(english(installing(run(seconds)), told(true, null), NoticeKind.START)).contains("Siltscope Lab 4.2.0").contains(" " + minutes + " min");
    }

    @Test
    void programsThatAreClosedAreNamedOnceAndAskedFor() {
        Job job = installing(Job.Step.of(StepKind.CLOSE, "Close", " Mudview,Tarnlog ,, Mudview", 60), run(60));
        assertThat(kinds(job, null)).contains(NoticeKind.CLOSE);
        assertThat(english(job, null, NoticeKind.CLOSE)).contains("Mudview, Tarnlog").doesNotContain("Tarnlog, Mudview");
        assertThat(kinds(installing(run(60)), null)).doesNotContain(NoticeKind.CLOSE);
    }

    @Test
    void aTitleWithoutAVersionIsToldByItsNameAlone() {
        assertThat(english(job(JobAction.REMOVE, null, run(60)), null, NoticeKind.REMOVED)).contains("Siltscope Lab").doesNotContain("null");
        assertThat(english(job(JobAction.REMOVE, null, run(60)), told(true, null), NoticeKind.START))
                .isNotEqualTo(english(installing(run(60)), told(true, null), NoticeKind.START));
    }
}
