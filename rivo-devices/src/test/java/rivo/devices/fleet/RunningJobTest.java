package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.devices.fleet.Luck.Mishap;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.StepKind;

/** One try at a job, step by step, without a server. */
class RunningJobTest {

    private static Job.Step run(Integer thenTo, Integer failsTo, boolean goesOn) {
        return new Job.Step(StepKind.RUN, "run", "x", 60, null, null, false, null, Map.of(), List.of(), goesOn, thenTo, failsTo,
                null, null);
    }

    private static final Job.Step UNDO = Job.Step.of(StepKind.COPY, "put back what was there", "x", 60);
    private static final Job.Step LOOK = Job.Step.of(StepKind.LOOK, "look", null, 60);

    private static List<Progress> all(Mishap mishap, Job.Step... steps) throws InterruptedException {
        return all(DeviceState.fresh("d", Map.of(), Map.of()), mishap, steps);
    }

    private static List<Progress> all(DeviceState device, Mishap mishap, Job.Step... steps) throws InterruptedException {
        RunningJob job = new RunningJob(new Job("t", "T", JobAction.INSTALL, "1", List.of(), List.of(steps)), List.of(), mishap, new HashMap<>(), close -> false);
        ServerConnection nowhere = new ServerConnection(URI.create("http://127.0.0.1:1"));
        List<Progress> all = new ArrayList<>(List.of(job.started()));
        while (all.get(all.size() - 1).state() == JobState.RUNNING) {
            all.add(job.next(nowhere, device));
        }
        return all;
    }

    @Test
    void anUninstallerIsTheOneOfWhatIsThere() throws InterruptedException {
        Job.Step remove = Job.Step.of(StepKind.RUN, "remove", "{uninstaller:Tidewatch 2.0} /S", 60);
        assertThat(all(Mishap.NONE, remove).get(1).message()).contains("there is no “Tidewatch 2.0” in the list of installed software");
        DeviceState device = DeviceState.fresh("d", Map.of("Tidewatch 2.1", "2.1"), Map.of());
        assertThat(all(device, Mishap.NONE, remove, LOOK)).last().extracting(Progress::state).isEqualTo(JobState.DONE);
        DeviceState profile = DeviceState.fresh("d", Map.of(), Map.of("rowena.elmby", Map.of("Tidewatch 2.1", "2.1")));
        assertThat(all(profile, Mishap.NONE, remove).get(1).message()).as("nothing that somebody registered for themselves is run as the system")
                .contains("there is no “Tidewatch 2.0” in the list of installed software");
    }

    @Test
    void aFailureThatIsTidiedUpIsStillAFailure() throws InterruptedException {
        List<Progress> all = all(Mishap.INSTALLER_FAILS, run(3, 2, false), UNDO, LOOK);
        assertThat(all).extracting(Progress::step).containsExactly(1, 2, 3, 3);
        Progress last = all.get(all.size() - 1);
        assertThat(last.state()).isEqualTo(JobState.FAILED);
        assertThat(last.message()).isEqualTo("the installer failed, and the title is not there");
    }

    @Test
    void whereItWentWellTheTidyingIsPassedOver() throws InterruptedException {
        List<Progress> all = all(Mishap.NONE, run(3, 2, false), UNDO, LOOK);
        assertThat(all).extracting(Progress::step).containsExactly(1, 3, 3);
        assertThat(all.get(all.size() - 1).state()).isEqualTo(JobState.DONE);
    }

    @Test
    void goingOnAfterAFailureMakesNothingThereEither() throws InterruptedException {
        List<Progress> all = all(Mishap.INSTALLER_FAILS, run(null, null, true), LOOK);
        assertThat(all.get(1).message()).startsWith("the installer failed with exit code 1603").endsWith("goes on with: look");
        assertThat(all.get(all.size() - 1).state()).isEqualTo(JobState.FAILED);
    }

    @Test
    void aStepMayLeadPastAllOthersToTheEnd() throws InterruptedException {
        List<Progress> all = all(Mishap.NONE, run(3, null, false), UNDO);
        assertThat(all).extracting(Progress::state).containsExactly(JobState.RUNNING, JobState.DONE);
    }
}
