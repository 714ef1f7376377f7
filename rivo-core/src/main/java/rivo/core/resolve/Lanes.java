package rivo.core.resolve;

import rivo.core.audience.Positions;

/**
 * Some places that are looked at together, each by a bit of its own in words of 64: its lane. A place is what stands for a unit while a family is settled
 * ({@link FamilyUnits}).
 *
 * @param first a multiple of 64
 * @param end after the last place
 */
record Lanes(int first, int end) {

    int words() {
        return (end - first + Long.SIZE - 1) / Long.SIZE;
    }

    /** Whether every lane is in the set. */
    boolean areIn(long[] set) {
        int words = words();
        for (int w = 0; w < words; w++) {
            long all = w < words - 1 ? -1 : -1L >>> first - end;
            if ((all & ~set[w]) != 0) {
                return false;
            }
        }
        return true;
    }

    /** Sets the bits of those places that are in the set. */
    void mark(Positions places, long[] into) {
        places.addTo(into, first);
    }

    /**
     * The same for some lanes after the other.
     *
     * @param passed what this gave for lanes before; 0 for the first
     * @return a number for the next ones
     */
    int mark(Positions places, long[] into, int passed) {
        return places.addTo(into, first, passed);
    }
}
