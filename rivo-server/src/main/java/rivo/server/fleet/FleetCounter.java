package rivo.server.fleet;

import java.time.Clock;
import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/**
 * How many devices there are of each state. Counted when somebody asks, one pass over the devices, and not too often
 * ({@link SeldomCounted}). At 100,000 devices that is about a second and a half. Safe for any number of threads.
 */
@Component
class FleetCounter {

    /** @param enrolled how many can sign what they say; the other figures add up to {@code devices} */
    record FleetCounts(int devices, int enrolled, int underWay, int failed, int waiting, int idle, int notSeenLately, int never) {
    }

    private final CurrentSnapshot current;
    private final Fleet fleet;
    private final Clock clock;
    private final SeldomCounted<FleetCounts> counted = new SeldomCounted<>();

    FleetCounter(CurrentSnapshot current, Fleet fleet, Clock clock) {
        this.current = current;
        this.fleet = fleet;
        this.clock = clock;
    }

    FleetCounts get() {
        return counted.get(() -> count(current.now(), clock.instant()));
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
