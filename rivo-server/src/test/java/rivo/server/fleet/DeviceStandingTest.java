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
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;
import rivo.server.SmallEstate;
import rivo.server.SmallSnapshot;
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
        return new DeviceStanding(SmallSnapshot.of(estate, Map.of()), device, doing, FromShelf.NOTHING, JobDurations.UNKNOWN, SEEN.plusSeconds(60)).lines();
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

    private static DeviceTitle waiting(WaitReason reason, String message, @Nullable Instant until) {
        Progress job = new Progress("siltscope", null, JobAction.INSTALL, "4.2.0", JobState.WAITING, 1, 4, 0, message, null, SEEN).waiting(reason, until);
        return only(lines(new DeviceActivity(SEEN, SEEN.plusSeconds(3), Map.of(JobKey.of("siltscope", null), job)), List.of(), REQUIRED));
    }

    @Test
    void whatTheDeviceWaitsForIsTheState() {
        DeviceTitle window = waiting(WaitReason.WINDOW, "waits for its window, which opens Tue 24 Nov 22:00", SEEN.plusSeconds(600));
        assertThat(window.state()).isEqualTo("waits-window");
        assertThat(window.since()).isEqualTo(SEEN);
        assertThat(window.due()).isEqualTo(SEEN.plusSeconds(600));
        assertThat(waiting(WaitReason.RESTART, "waits for a restart", null).state()).isEqualTo("after-restart");
        assertThat(waiting(WaitReason.CONTENT, "waits for content", null).state()).isEqualTo("waits-content");
    }

    @Test
    void aFailureSaysWhenItIsTriedAgain() {
        Progress failed = new Progress("siltscope", null, JobAction.INSTALL, "4.2.0", JobState.FAILED, 3, 4, 50, "the installer failed", 1603, SEEN)
                .waiting(WaitReason.TRY, Instant.parse("2026-11-23T09:00:00Z"));
        DeviceTitle line = only(lines(new DeviceActivity(SEEN, SEEN.plusSeconds(3), Map.of(JobKey.of("siltscope", null), failed)), List.of(), REQUIRED));
        assertThat(line.state()).isEqualTo("failed");
        assertThat(line.line()).startsWith("the installer failed; next try Mon 23 Nov ");
    }

    @Test
    void fetchingSaysHowMuchIsThere() {
        Progress fetching = new Progress("siltscope", null, JobAction.INSTALL, "4.2.0", JobState.RUNNING, 1, 4, 0, "fetching setup.exe", null, SEEN)
                .fetching(12_400_000, 40_000_000);
        DeviceTitle line = only(lines(new DeviceActivity(SEEN, SEEN.plusSeconds(3), Map.of(JobKey.of("siltscope", null), fetching)), List.of(), REQUIRED));
        assertThat(line.state()).isEqualTo("fetching");
        assertThat(line.line()).isEqualTo("step 1 of 4 · fetching setup.exe, 12 of 38 MiB");
    }

    @Test
    void aDeviceThatIsAwaySaysSinceWhen() {
        DeviceTitle line = only(lines(new DeviceActivity(SEEN.minusSeconds(200_000), SEEN.minusSeconds(190_000), Map.of()), List.of(), REQUIRED));
        assertThat(line.state()).isEqualTo("waits-device");
        assertThat(line.since()).isEqualTo(SEEN.minusSeconds(200_000));
        assertThat(line.line()).startsWith("the device is away; it was last heard of ");
    }

    @Test
    void whatSomebodyRemovedByHandComesBackAndThatIsSaid() {
        Progress done = new Progress("siltscope", null, JobAction.INSTALL, "4.2.0", JobState.DONE, 4, 4, 100, "done", 0, SEEN.minusSeconds(3600));
        DeviceTitle line = only(lines(new DeviceActivity(SEEN, SEEN.plusSeconds(900), Map.of(JobKey.of("siltscope", null), done)), List.of(), REQUIRED));
        assertThat(line.line()).isEqualTo("it was removed by hand; installed again at its next call-in");
    }

    @Test
    void whatIsOfferedIsItsOwnGroupAndInPlaceWhereItIsThere() {
        Assignment offer = assignment("a1", 1, Intent.AVAILABLE, "root");
        assertThat(only(lines(CALLED, List.of(), offer)).group()).isEqualTo("offered");
        assertThat(only(lines(CALLED, has("4.1"), offer)).state()).isEqualTo("in-place");
    }
}
