package rivo.core.audience;

import java.util.function.IntConsumer;
import java.util.stream.IntStream;
import org.roaringbitmap.RoaringBitmap;

/**
 * A set of devices, by their positions in OU order. Immutable; safe for any thread.
 *
 * <p>The mutable bitmap inside never leaves the method that fills it. Ranges, which OU targets are, cost a few bytes
 * whatever their length.
 */
public final class DeviceSet {

    public static final DeviceSet NONE = new DeviceSet(new RoaringBitmap());

    private final RoaringBitmap positions;

    private DeviceSet(RoaringBitmap positions) {
        this.positions = positions;
    }

    /** The positions from {@code from}, included, to {@code to}, excluded. */
    public static DeviceSet range(int from, int to) {
        return from >= to ? NONE : new DeviceSet(RoaringBitmap.bitmapOfRange(from, to));
    }

    public static DeviceSet of(int... positions) {
        return new DeviceSet(RoaringBitmap.bitmapOf(positions));
    }

    public DeviceSet or(DeviceSet other) {
        return new DeviceSet(RoaringBitmap.or(positions, other.positions));
    }

    public DeviceSet and(DeviceSet other) {
        return new DeviceSet(RoaringBitmap.and(positions, other.positions));
    }

    public DeviceSet without(DeviceSet other) {
        return new DeviceSet(RoaringBitmap.andNot(positions, other.positions));
    }

    public boolean isEmpty() {
        return positions.isEmpty();
    }

    public boolean contains(int position) {
        return positions.contains(position);
    }

    public int size() {
        return positions.getCardinality();
    }

    /** How many are at {@code from}, included, to {@code to}, excluded. */
    public int countIn(int from, int to) {
        return from >= to ? 0 : (int) positions.rangeCardinality(from, to);
    }

    /** Calls with each position, in ascending order. */
    public void forEach(IntConsumer consumer) {
        positions.forEach((org.roaringbitmap.IntConsumer) consumer::accept);
    }

    /** The positions in ascending order. */
    public IntStream stream() {
        return positions.stream();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof DeviceSet set && positions.equals(set.positions);
    }

    @Override
    public int hashCode() {
        return positions.hashCode();
    }

    @Override
    public String toString() {
        return positions.toString();
    }
}
