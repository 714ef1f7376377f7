package rivo.server.wave;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.explain.AssignmentReach;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.state.StateGroup;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Rollout;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.Fleet;
import rivo.server.fleet.JobKey;

/** Counts how far the waves of an assignment have come. Costs a look at each device that it serves. Pure reading; safe for any number of threads. */
@Component
class WaveProgress {

    private static final byte IN_PLACE = 1;
    private static final byte MISSING = 2;
    private static final byte FAILED = 4;
    private static final byte TRIED = 8;

    private final Fleet fleet;

    WaveProgress(Fleet fleet) {
        this.fleet = fleet;
    }

    /** One lane for each of its waves; none without waves, or where it assigns nothing that there is. */
    List<Lane> of(Snapshot snapshot, AssignmentDocument document) {
        Assignment assignment = document.assignment();
        List<Title> titles = snapshot.estate().titlesOf(assignment.subject());
        if (titles.isEmpty() || assignment.waves().isEmpty()) {
            return List.of();
        }
        Audiences audiences = snapshot.resolver().audiences();
        byte[] states = new byte[snapshot.estate().devices().size()];
        titles.forEach(title -> look(snapshot, assignment, title, states));
        Rollout rollout = document.delivery().rollout();
        Instant since = rollout == null ? null : rollout.lastOpened();
        List<UnitSet> waves = AssignmentReach.of(snapshot.resolver(), assignment, titles.get(0).scope()).waves();
        List<Lane> lanes = new ArrayList<>();
        for (int i = 0; i < waves.size(); i++) {
            lanes.add(lane(snapshot, assignment.waves().get(i).open(), audiences.devicesOf(waves.get(i)), states, since));
        }
        return lanes;
    }

    private void look(Snapshot snapshot, Assignment assignment, Title title, byte[] states) {
        for (DecidedUnits part : snapshot.resolver().title(title).parts()) {
            Decision decision = part.decision();
            boolean acts = decision.outcome() == Outcome.REQUIRED || decision.outcome() == Outcome.UNINSTALL;
            if (acts && decision.deciding().contains(assignment)) {
                snapshot.resolver().audiences().each(part.units()).forEach(unit -> {
                    int position = snapshot.estate().devices().position(unit.device().id());
                    states[position] |= state(snapshot, unit.device(), title, title.scope() == Scope.USER ? unit.user() : null, decision);
                });
            }
        }
    }

    private byte state(Snapshot snapshot, Device device, Title title, @Nullable String user, Decision decision) {
        StateGroup state = fleet.state(snapshot, device, title, user, decision).group();
        boolean inPlace = state == StateGroup.IN_PLACE || state == StateGroup.GONE;
        boolean failed = state == StateGroup.FAILED;
        boolean tried = failed || inPlace && wasDone(snapshot, device, title, user, decision);
        return (byte) ((inPlace ? IN_PLACE : MISSING) | (failed ? FAILED : 0) | (tried ? TRIED : 0));
    }

    /** Whether its device did it; what was there before has not been tried. */
    private boolean wasDone(Snapshot snapshot, Device device, Title title, @Nullable String user, Decision decision) {
        boolean install = decision.outcome() == Outcome.REQUIRED;
        String wanted = install ? Objects.requireNonNull(decision.release()).version().toString() : null;
        Progress job = fleet.progress(snapshot, device.id(), JobKey.of(title.id(), user));
        return job != null && job.state() == JobState.DONE && job.action() == (install ? JobAction.INSTALL : JobAction.REMOVE)
                && Objects.equals(job.version(), wanted);
    }

    private Lane lane(Snapshot snapshot, boolean open, DeviceSet devices, byte[] states, @Nullable Instant since) {
        int[] counts = new int[6];
        devices.stream().filter(position -> states[position] != 0).forEach(position -> {
            byte state = states[position];
            boolean inPlace = (state & MISSING) == 0;
            Instant seen = fleet.lastSeen(snapshot.estate().devices().at(position).id());
            boolean called = seen != null && (since == null || !seen.isBefore(since));
            boolean[] holds = {true, inPlace, (state & FAILED) != 0, (state & TRIED) != 0, called, called && inPlace};
            for (int i = 0; i < holds.length; i++) {
                counts[i] += holds[i] ? 1 : 0;
            }
        });
        return new Lane(open, devices.size(), counts[0], counts[1], counts[2], counts[3], counts[4], counts[5]);
    }
}
