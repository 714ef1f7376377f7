package rivo.server.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Title;
import rivo.core.state.Situation;
import rivo.core.state.UnitState;

/** In which state one unit is, and when it is expected to be as it shall. Used by one thread. */
record UnitLook(Title title, @Nullable String person, Situation at, UnitState state, ExpectedTimes times) {

    static UnitLook of(Title title, @Nullable String person, Situation at, ExpectedTimes times) {
        return new UnitLook(title, person, at, UnitState.of(at), times);
    }

    /** With this likelihood; null where nobody can say. */
    @Nullable Instant by(double likelihood) {
        return times.by(likelihood, title, person, at, state);
    }

    /** Whether it waits, and its device has been away for so long that nothing is expected of it. */
    boolean isAway() {
        return ExpectedTimes.isExpected(state) && times.isAway();
    }
}
