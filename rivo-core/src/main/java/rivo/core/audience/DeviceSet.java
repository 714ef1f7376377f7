package rivo.core.audience;

import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * A set of devices, of the estate whose audiences were asked for it. Immutable; safe for any thread.
 *
 * @param positions of the devices in OU order
 */
public record DeviceSet(Positions positions) {

    public static final DeviceSet NONE = new DeviceSet(Positions.NONE);

    public int size() {
        return positions.size();
    }

    public boolean isEmpty() {
        return positions.isEmpty();
    }

    /** Whether the device at this position is one of them. */
    public boolean contains(int device) {
        return positions.contains(device);
    }

    /** How many of them stand at the positions from {@code from}, included, to {@code to}, excluded. */
    public int countIn(int from, int to) {
        return positions.countIn(from, to);
    }

    public DeviceSet and(DeviceSet other) {
        return new DeviceSet(positions.and(other.positions));
    }

    public DeviceSet or(DeviceSet other) {
        return new DeviceSet(positions.or(other.positions));
    }

    public DeviceSet without(DeviceSet other) {
        return new DeviceSet(positions.without(other.positions));
    }

    /** Those whose position satisfies the test. Costs a call for each. */
    public DeviceSet filter(IntPredicate test) {
        return new DeviceSet(positions.filter(test));
    }

    /** The positions of the devices, ascending. */
    public IntStream stream() {
        return positions.stream();
    }
}
