package rivo.core.resolve;

import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/**
 * Some units that are looked at together, each by a bit of its own in words of 64: its lane. Lanes ascend as units do. Of one thread.
 *
 * <p><b>How.</b> Of many units that lie together, every position of a span has a lane, those between them, too: sets are read as they lie. Otherwise only the units
 * themselves have one, and are found by counting the units before them.
 */
final class Lanes {

    private final int first;
    private final int words;
    /** The units; null where all positions of the span have lanes. */
    private final int @Nullable [] units;
    /** A bit for each unit from {@link #first} on, and the number of units before each word. */
    private final long[] bits;
    private final int[] before;
    /** Memory of {@link #markByWords}: nothing between two calls. */
    private long[] laidOut = {};

    private Lanes(int first, int words, int @Nullable [] units, long[] bits, int[] before) {
        this.first = first;
        this.words = words;
        this.units = units;
        this.bits = bits;
        this.before = before;
    }

    /** A lane for each position from {@code first} on, a multiple of 64, for so many words. */
    static Lanes span(int first, int words) {
        return new Lanes(first, words, null, new long[0], new int[0]);
    }

    /** @param units ascending, at least one; theirs from now on */
    static Lanes of(int... units) {
        int first = units[0] & -Long.SIZE;
        long[] bits = new long[(units[units.length - 1] - first) / Long.SIZE + 1];
        for (int unit : units) {
            bits[unit - first >> 6] |= 1L << unit;
        }
        int[] before = new int[bits.length];
        for (int w = 1; w < bits.length; w++) {
            before[w] = before[w - 1] + Long.bitCount(bits[w - 1]);
        }
        return new Lanes(first, (units.length - 1) / Long.SIZE + 1, units, bits, before);
    }

    int words() {
        return words;
    }

    /** The first unit, or a position before it. */
    int first() {
        return first;
    }

    /** A position after the last unit. */
    int end() {
        return units == null ? first + words * Long.SIZE : units[units.length - 1] + 1;
    }

    /** Whether lanes are positions that follow one another. */
    boolean isSpan() {
        return units == null;
    }

    /** Whether every lane is in the set; of a span no answer but yes is certain, since it has lanes that nobody asked for. */
    boolean areIn(long[] set) {
        for (int w = 0; w < words; w++) {
            long all = units == null || w < words - 1 ? -1 : -1L >>> -units.length;
            if ((all & ~set[w]) != 0) {
                return false;
            }
        }
        return true;
    }

    int unit(int lane) {
        return units == null ? first + lane : units[lane];
    }

    /** Sets the bits of those units that are in the set. */
    void mark(Positions set, long[] into) {
        if (units == null) {
            set.addTo(into, first);
            return;
        }
        int count = set.countIn(first, end());
        if (2 * Math.min(count, units.length) > bits.length) {
            markByWords(set, into);
        } else if (count > 2 * units.length) {
            for (int lane = 0; lane < units.length; lane++) {
                if (set.contains(units[lane])) {
                    into[lane >> 6] |= 1L << lane;
                }
            }
        } else {
            set.in(first, end()).forEach(position -> mark(position, into));
        }
    }

    /** The set is laid out as it lies, and read where there are units. */
    private void markByWords(Positions set, long[] into) {
        if (laidOut.length == 0) {
            laidOut = new long[bits.length];
        }
        set.addTo(laidOut, first);
        for (int w = 0; w < bits.length; w++) {
            for (long rest = laidOut[w] & bits[w]; rest != 0; rest &= rest - 1) {
                int lane = before[w] + Long.bitCount(bits[w] & Long.lowestOneBit(rest) - 1);
                into[lane >> 6] |= 1L << lane;
            }
            laidOut[w] = 0;
        }
    }

    /**
     * The same for one span of lanes after the other.
     *
     * @param passed what this gave for lanes before; 0 for the first
     * @return a number for the next ones
     */
    int mark(Positions set, long[] into, int passed) {
        if (units == null) {
            return set.addTo(into, first, passed);
        }
        mark(set, into);
        return passed;
    }

    private void mark(int position, long[] into) {
        int word = position - first >> 6;
        if ((bits[word] >>> position & 1) != 0) {
            int lane = before[word] + Long.bitCount(bits[word] & (1L << position) - 1);
            into[lane >> 6] |= 1L << lane;
        }
    }
}
