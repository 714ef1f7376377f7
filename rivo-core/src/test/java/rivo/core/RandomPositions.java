package rivo.core;

import java.util.Random;
import rivo.core.audience.Positions;

/** Sets of positions of every shape: runs, few that lie far apart, and many; also none. */
public final class RandomPositions {

    private RandomPositions() {
    }

    /** @param end after the last position that may be a member, at least 1 */
    public static Positions below(int end, Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> Positions.range(random.nextInt(end), random.nextInt(end));
            case 1 -> Positions.of(random.ints(random.nextInt(4), 0, end).toArray());
            case 2 -> Positions.of(random.ints(random.nextInt(30), 0, end).toArray());
            default -> Positions.of(random.ints(random.nextInt(end), 0, end).toArray());
        };
    }
}
