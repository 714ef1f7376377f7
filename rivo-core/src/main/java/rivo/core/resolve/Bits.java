package rivo.core.resolve;

/** Sets of lanes as words of bits. */
final class Bits {

    private Bits() {
    }

    static void add(long[] to, long[] more) {
        for (int w = 0; w < to.length; w++) {
            to[w] |= more[w];
        }
    }

    static void remove(long[] from, long[] some) {
        for (int w = 0; w < from.length; w++) {
            from[w] &= ~some[w];
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
        for (int w = from; w < to; w++) {
            if ((one[w] & other[w]) != 0) {
                return true;
            }
        }
        return false;
    }
}
