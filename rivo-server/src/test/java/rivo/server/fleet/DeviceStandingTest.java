package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.server.SmallEstate.assignment;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Present;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.SmallEstate;
import rivo.server.fleet.DeviceStanding.DeviceTitle;

/** How a device stands with its titles, in words. */
class DeviceStandingTest {

    private static final Instant SEEN = Instant.parse("2026-11-23T08:00:00Z");
    private static final DeviceActivity CALLED = new DeviceActivity(SEEN, SEEN.plusSeconds(900), Map.of());
    private static final Assignment REQUIRED = assignment("a1", 1, Intent.REQUIRED, "root");
    private static final Assignment UNINSTALL = assignment("a1", 1, Intent.UNINSTALL, "labs");

    private static List<DeviceTitle> lines(DeviceActivity doing, List<Present> present, Assignment... assignments) {
        Estate estate = SmallEstate.with(present, assignments);
        Device device = estate.devices().at(0);
        return new DeviceStanding(Resolver.of(estate), device, doing, null, FromShelf.NOTHING).lines();
    }

    private static List<Present> has(@Nullable String version) {
        return List.of(Present.of("siltscope", version == null ? null : Version.of(version)));
    }

    private static DeviceActivity job(JobAction action, @Nullable String version, JobState state) {
        return new DeviceActivity(SEEN, SEEN.plusSeconds(3), Map.of(JobKey.of("siltscope", null), new Progress("siltscope", null, action, version,
                state, 3, 4, 50, "running the installer, quietly", null, SEEN)));
    }

    private static DeviceTitle only(List<DeviceTitle> lines) {
        assertThat(lines).hasSize(1);
        return lines.get(0);
    }

    @Test
    void whatIsThereAsItShouldBeIsInPlace() {
        DeviceTitle line = only(lines(CALLED, has("4.2"), REQUIRED));
        assertThat(line.group()).isEqualTo("in-place");
        assertThat(line.line()).isEqualTo("required, Quillbrook Water");
    }

    @Test
    void whatIsAssignedToSomethingElseThanAnOuSaysToWhat() {
        Device device = SmallEstate.with(List.of()).devices().at(0);
        assertThat(only(lines(CALLED, has("4.2"), REQUIRED.withInclude(List.of(Target.device(device.id()))))).line()).isEqualTo("required, " + device.name());
    }

    @Test
    void aHigherVersionIsInPlaceToo() {
        assertThat(only(lines(CALLED, has("5.0"), REQUIRED)).group()).isEqualTo("in-place");
    }

    @Test
    void whatIsMissingWaitsForTheNextCallIn() {
        DeviceTitle line = only(lines(CALLED, List.of(), REQUIRED));
        assertThat(line.group()).isEqualTo("waiting");
        assertThat(line.line()).isEqualTo("at its next call-in");
        assertThat(line.due()).isEqualTo(SEEN.plusSeconds(900));
        assertThat(line.to()).isEqualTo("4.2.0");
    }

    @Test
    void anUnknownVersionIsNotTakenForTheRightOne() {
        DeviceTitle line = only(lines(CALLED, has(null), REQUIRED));
        assertThat(line.group()).isEqualTo("waiting");
        assertThat(line.present()).isTrue();
        assertThat(line.from()).isNull();
    }

    @Test
    void aRunningJobSaysItsStep() {
        DeviceTitle line = only(lines(job(JobAction.INSTALL, "4.2.0", JobState.RUNNING), has("4.1"), REQUIRED));
        assertThat(line.group()).isEqualTo("under-way");
        assertThat(line.line()).isEqualTo("step 3 of 4 · running the installer, quietly");
        assertThat(line.percent()).isEqualTo(50);
    }

    @Test
    void aFailedJobNeedsSomebodyAndAWaitingOneDoesNot() {
        assertThat(only(lines(job(JobAction.INSTALL, "4.2.0", JobState.FAILED), List.of(), REQUIRED)).group())
                .isEqualTo("needs");
        assertThat(only(lines(job(JobAction.INSTALL, "4.2.0", JobState.WAITING), List.of(), REQUIRED)).group())
                .isEqualTo("waiting");
    }

    @Test
    void aJobOfAnotherVersionOrKindSaysNothingOfThisOne() {
        assertThat(only(lines(job(JobAction.INSTALL, "4.1.0", JobState.FAILED), List.of(), REQUIRED)).line())
                .isEqualTo("at its next call-in");
        assertThat(only(lines(job(JobAction.REMOVE, null, JobState.RUNNING), List.of(), REQUIRED)).line())
                .isEqualTo("at its next call-in");
    }

    @Test
    void aJobThatSaysDoneIsNotBelievedUntilTheTitleIsThere() {
        assertThat(only(lines(job(JobAction.INSTALL, "4.2.0", JobState.DONE), List.of(), REQUIRED)).group())
                .isEqualTo("waiting");
    }

    @Test
    void whatShallBeAbsentAndIsNotIsToBeTakenOff() {
        DeviceTitle line = only(lines(job(JobAction.REMOVE, null, JobState.RUNNING), has("4.1"), UNINSTALL));
        assertThat(line.group()).isEqualTo("under-way");
        assertThat(line.to()).isNull();
        assertThat(only(lines(CALLED, List.of(), UNINSTALL)).line()).isEqualTo("to be absent, Laboratories");
    }

    @Test
    void whatIsContestedOrDoesNotFitNeedsSomebody() {
        DeviceTitle contested = only(lines(CALLED, has("4.1"), assignment("a1", 1, Intent.REQUIRED, "labs"),
                assignment("a2", 2, Intent.UNINSTALL, "labs")));
        assertThat(contested.group()).isEqualTo("needs");
        assertThat(contested.line()).startsWith("2 level assignments disagree");
        DeviceTitle unfit = only(lines(CALLED, List.of(), Assignment.of("a1", 1, Subject.title("empty"),
                Intent.REQUIRED, List.of(Target.ou("root")))));
        assertThat(unfit.end()).isEqualTo("does not fit");
    }

    @Test
    void whatNobodyAskedForIsLeftAlone() {
        assertThat(only(lines(CALLED, has("4.1"))).group()).isEqualTo("unasked");
        assertThat(lines(CALLED, List.of())).isEmpty();
    }

    @Test
    void aDeviceThatNeverCalledIsSaidToBeUnreached() {
        assertThat(only(lines(DeviceActivity.NOTHING, List.of(), REQUIRED)).line())
                .isEqualTo("the device has never called in");
    }
}
