package rivo.core.resolve;

/**
 * Sets of lanes as words of bits. Where words are named, those from one to another are looked at, and no others.
 *
 * <p>All that is done with sets comes to these loops, from very many places: the launcher sees to it that they are compiled by themselves.
 */
final class Bits {

    private Bits() {
    }

    static void add(long[] to, long[] more) {
        add(to, more, 0, to.length);
    }

    static void add(long[] set, long[] more, int from, int to) {
        for (int w = from; w < to; w++) {
            set[w] |= more[w];
        }
    }

    static void remove(long[] from, long[] some) {
        remove(from, some, 0, from.length);
    }

    static void remove(long[] set, long[] some, int from, int to) {
        for (int w = from; w < to; w++) {
            set[w] &= ~some[w];
        }
    }

    /** Leaves what is in another. */
    static void keep(long[] set, long[] other, int from, int to) {
        for (int w = from; w < to; w++) {
            set[w] &= other[w];
        }
    }

    /** Leaves what is in one of two others. */
    static void keepEither(long[] set, long[] one, long[] other, int from, int to) {
        for (int w = from; w < to; w++) {
            set[w] &= one[w] | other[w];
        }
    }

    /** Writes those in both. */
    static void both(long[] one, long[] other, long[] into, int from, int to) {
        for (int w = from; w < to; w++) {
            into[w] = one[w] & other[w];
        }
    }

    /** Writes those of one that are not in the other. */
    static void without(long[] one, long[] other, long[] into, int from, int to) {
        for (int w = from; w < to; w++) {
            into[w] = one[w] & ~other[w];
        }
    }

    static void addBoth(long[] set, long[] one, long[] other) {
        addBoth(set, one, other, 0, set.length);
    }

    /** Adds those in both. */
    static void addBoth(long[] set, long[] one, long[] other, int from, int to) {
        for (int w = from; w < to; w++) {
            set[w] |= one[w] & other[w];
        }
    }

    static boolean any(long[] set, int from, int to) {
        for (int w = from; w < to; w++) {
            if (set[w] != 0) {
                return true;
            }
        }
        return false;
    }

    /** Whether the two have anything in common. */
    static boolean meet(long[] one, long[] other, int from, int to) {
        int w = from;
        // Four words at a time: most have nothing in common, and all words are looked at.
        for (int last = to - 3; w < last; w += 4) {
            if ((one[w] & other[w] | one[w + 1] & other[w + 1] | one[w + 2] & other[w + 2] | one[w + 3] & other[w + 3]) != 0) {
                return true;
            }
        }
        for (; w < to; w++) {
            if ((one[w] & other[w]) != 0) {
                return true;
            }
        }
        return false;
    }
}
