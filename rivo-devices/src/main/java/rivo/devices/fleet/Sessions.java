package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * Who of the people of a simulated device is signed in: one after another, each for a while, and now and then nobody. Immutable.
 *
 * @param people their accounts
 * @param length how long somebody stays; zero where the first always is
 */
record Sessions(Luck luck, List<String> people, Duration length) {

    /** Of a thousand sessions, in so many nobody is there. */
    private static final int NOBODY = 140;

    Sessions {
        people = List.copyOf(people);
    }

    /** The accounts of those who are signed in at an instant: one or none. */
    List<String> at(Instant now) {
        if (people.isEmpty() || length.isZero()) {
            return people.stream().limit(1).toList();
        }
        // Not every device in the same second.
        long offset = length.toMillis() * luck.perMille("sessions") / 1000;
        long session = (now.toEpochMilli() + offset) / length.toMillis();
        return luck.perMille("session " + session) < NOBODY ? List.of() : List.of(people.get((int) (session % people.size())));
    }
}
