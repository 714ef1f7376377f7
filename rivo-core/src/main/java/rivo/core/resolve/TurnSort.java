package rivo.core.resolve;

/** Sorts numbers in an order of one's own: the library does that only with objects, and this is done for each device that is asked about. */
final class TurnSort {

    /** So many are sorted by inserting one after the other. */
    private static final int FEW = 8;

    /** Which of two comes first: below zero for the one, above for the other. */
    interface Order {

        int compare(int one, int other);
    }

    private TurnSort() {
    }

    /**
     * Sorts the first so many; level ones stay as they were.
     *
     * @param memory for at least as many, which is written over
     */
    static void sort(int[] some, int count, int[] memory, Order order) {
        sort(some, 0, count, memory, order);
    }

    private static void sort(int[] some, int from, int to, int[] memory, Order order) {
        if (to - from <= FEW) {
            insert(some, from, to, order);
            return;
        }
        int middle = (from + to) / 2;
        sort(some, from, middle, memory, order);
        sort(some, middle, to, memory, order);
        System.arraycopy(some, from, memory, from, middle - from);
        for (int one = from, other = middle, next = from; one < middle; next++) {
            some[next] = other < to && order.compare(some[other], memory[one]) < 0 ? some[other++] : memory[one++];
        }
    }

    private static void insert(int[] some, int from, int to, Order order) {
        for (int i = from + 1; i < to; i++) {
            int next = some[i];
            int at = i;
            for (; at > from && order.compare(next, some[at - 1]) < 0; at--) {
                some[at] = some[at - 1];
            }
            some[at] = next;
        }
    }
}
