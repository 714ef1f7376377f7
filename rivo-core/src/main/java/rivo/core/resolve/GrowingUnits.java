package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;

/** Gathers places, mostly in ascending order: few take what they take as a list, many a bit for each of the span. Of one thread. */
final class GrowingUnits {

    private static final int BITS_OF_NUMBER = 32;

    private final Lanes all;
    private int[] few = new int[4];
    private int size;
    private boolean ascending = true;
    private @Nullable PositionsBuilder many;

    /** @param all among which they are */
    GrowingUnits(Lanes all) {
        this.all = all;
    }

    /** Adds the places of these lanes. */
    void add(Lanes lanes, long[] at) {
        int count = 0;
        for (long word : at) {
            count += Long.bitCount(word);
        }
        expect(count);
        for (int w = 0; w < at.length; w++) {
            if (at[w] != 0) {
                add(lanes.first() + w * Long.SIZE, at[w]);
            }
        }
    }

    /** Makes room for so many, which have to be told before they are added. */
    void expect(int count) {
        if (many == null && (long) (size + count) * BITS_OF_NUMBER > all.end() - all.first()) {
            many = new PositionsBuilder(all.first(), all.end());
            for (int i = 0; i < size; i++) {
                many.add(few[i]);
            }
        } else if (many == null && size + count > few.length) {
            few = Arrays.copyOf(few, Math.max(size + count, 2 * size));
        }
    }

    /**
     * Adds the places of a word of lanes.
     *
     * @param first that of its first lane; a multiple of 64
     * @param at not empty
     */
    void add(int first, long at) {
        if (many != null) {
            many.addWord(at, first);
            return;
        }
        ascending &= size == 0 || few[size - 1] < first + Long.numberOfTrailingZeros(at);
        for (long rest = at; rest != 0; rest &= rest - 1) {
            few[size++] = first + Long.numberOfTrailingZeros(rest);
        }
    }

    /** What has been gathered; nothing must be added any more. */
    Positions build() {
        if (many != null) {
            return many.build();
        }
        int[] all = Arrays.copyOf(few, size);
        return ascending ? Positions.ofSorted(all) : Positions.of(all);
    }
}
