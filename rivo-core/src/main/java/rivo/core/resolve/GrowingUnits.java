package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;

/** Gathers places that come in ascending order: few take what they take as a list, many a bit for each of the span. Of one thread. */
final class GrowingUnits {

    private static final int BITS_OF_NUMBER = 32;

    private final Lanes all;
    private int[] few = new int[4];
    private int size;
    private @Nullable PositionsBuilder many;

    /** @param all among which they are */
    GrowingUnits(Lanes all) {
        this.all = all;
    }

    /** Adds the places of these lanes, which are after all that have been added. */
    void add(Lanes lanes, long[] at) {
        add(lanes, at, 0, at.length);
    }

    /** The same where none are outside the words from one to another. */
    void add(Lanes lanes, long[] at, int from, int to) {
        if (many == null) {
            makeRoom(at, from, to);
        }
        if (many != null) {
            many.addAll(at, lanes.first());
            return;
        }
        for (int w = from; w < to; w++) {
            for (long rest = at[w]; rest != 0; rest &= rest - 1) {
                few[size++] = lanes.first() + w * Long.SIZE + Long.numberOfTrailingZeros(rest);
            }
        }
    }

    private void makeRoom(long[] at, int from, int to) {
        int count = 0;
        for (int w = from; w < to; w++) {
            count += Long.bitCount(at[w]);
        }
        if ((long) (size + count) * BITS_OF_NUMBER > all.end() - all.first()) {
            many = new PositionsBuilder(all.first(), all.end());
            for (int i = 0; i < size; i++) {
                many.add(few[i]);
            }
        } else if (size + count > few.length) {
            few = Arrays.copyOf(few, Math.max(size + count, 2 * size));
        }
    }

    /** What has been gathered; nothing must be added any more. */
    Positions build() {
        return many != null ? many.build() : Positions.ofSorted(Arrays.copyOf(few, size));
    }
}
