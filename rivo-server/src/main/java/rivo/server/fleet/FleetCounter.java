package rivo.server.fleet;

import java.time.Clock;
import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/**
 * How many devices there are of each state. Counted when somebody asks, one pass over the devices, and for at most a twentieth of the time:
 * whoever asks too soon is told the same again, so that many who look cost no more than one. At 100,000 devices that is about a second and a
 * half. Safe for any number of threads.
 */
@Component
class FleetCounter {

    private static final int REST = 20;

    /** @param enrolled how many can sign what they say; the other figures add up to {@code devices} */
    record FleetCounts(int devices, int enrolled, int underWay, int failed, int waiting, int idle, int notSeenLately, int never) {
    }

    private final CurrentSnapshot current;
    private final Fleet fleet;
    private final Clock clock;
    private @Nullable FleetCounts counted;
    private long goodUntil;

    FleetCounter(CurrentSnapshot current, Fleet fleet, Clock clock) {
        this.current = current;
        this.fleet = fleet;
        this.clock = clock;
    }

    synchronized FleetCounts get() {
        FleetCounts known = counted;
        if (known == null || System.nanoTime() - goodUntil >= 0) {
            long begun = System.nanoTime();
            known = count(current.now(), clock.instant());
            long ended = System.nanoTime();
            counted = known;
            goodUntil = ended + REST * (ended - begun);
        }
        return known;
    }

    private FleetCounts count(Snapshot snapshot, Instant now) {
        Estate estate = snapshot.estate();
        Map<DeviceRow.State, Integer> states = new EnumMap<>(DeviceRow.State.class);
        for (int p = 0; p < estate.devices().size(); p++) {
            states.merge(DeviceRow.state(fleet.of(snapshot, estate.devices().at(p).id()), now), 1, Integer::sum);
        }
        return new FleetCounts(estate.devices().size(), Enrolments.enrolled(snapshot), of(states, DeviceRow.State.UNDER_WAY),
                of(states, DeviceRow.State.FAILED), of(states, DeviceRow.State.WAITING), of(states, DeviceRow.State.IDLE),
                of(states, DeviceRow.State.NOT_SEEN_LATELY), of(states, DeviceRow.State.NEVER));
    }

    private static int of(Map<DeviceRow.State, Integer> states, DeviceRow.State state) {
        return states.getOrDefault(state, 0);
    }
}
