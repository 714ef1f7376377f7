package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;

/** Gathers units that come in ascending order: few take what they take as a list, many a bit for each of the span. Of one thread. */
final class GrowingUnits {

    private static final int BITS_OF_NUMBER = 32;

    private final int from;
    private final int to;
    private int[] few = new int[4];
    private int size;
    private @Nullable PositionsBuilder many;

    /** For units from {@code from}, included, to {@code to}, excluded. */
    GrowingUnits(int from, int to) {
        this.from = from;
        this.to = to;
    }

    void add(int unit) {
        if (many != null) {
            many.add(unit);
            return;
        }
        if (size == few.length) {
            if ((long) size * BITS_OF_NUMBER > to - from) {
                many = new PositionsBuilder(from, to);
                for (int one : few) {
                    many.add(one);
                }
                many.add(unit);
                return;
            }
            few = Arrays.copyOf(few, 2 * size);
        }
        few[size++] = unit;
    }

    /** What has been gathered; nothing must be added any more. */
    Positions build() {
        return many != null ? many.build() : Positions.of(Arrays.copyOf(few, size));
    }
}
