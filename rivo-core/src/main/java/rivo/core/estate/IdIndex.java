package rivo.core.estate;

/**
 * Finds the number of an id among many: numbers are from 0 on, in the order in which the ids were given. Immutable; safe for any thread.
 *
 * <p><b>How.</b> An open table with linear probing, at most half full, whose entries hold the hash of an id beside its number: what has
 * another hash is passed over without a look at the id itself. Tens of millions of memberships are looked up one after the other, and each
 * lookup waits for memory three times: for the id that is asked for, for the table, and for the id that stands there. Many are therefore
 * looked up together, step by step, so that they wait at the same time.
 */
final class IdIndex {

    /** So many are looked up together. */
    static final int TOGETHER = 128;
    private static final int HIGH = 32;
    private static final long LOW = 0xffff_ffffL;

    private final String[] ids;
    /** The hash above, the number and 1 below; 0 where nothing stands. */
    private final long[] table;

    /** @param ids each once; the array becomes this one's */
    IdIndex(String[] ids) {
        this.ids = ids;
        this.table = new long[Integer.highestOneBit(Math.max(1, ids.length)) << 2];
        for (int n = 0; n < ids.length; n++) {
            int hash = hash(ids[n]);
            int at = hash & table.length - 1;
            while (table[at] != 0) {
                at = at + 1 & table.length - 1;
            }
            table[at] = (long) hash << HIGH | n + 1;
        }
    }

    /** Ids differ in their last letters most: those have to reach the low bits and the high ones. */
    private static int hash(String id) {
        int hash = id.hashCode() * 0x9e37_79b9;
        return hash ^ hash >>> 15;
    }

    /** The number of an id; -1 when there is none such. */
    int find(String id) {
        return find(id, hash(id));
    }

    private int find(String id, int hash) {
        int at = hash & table.length - 1;
        for (long entry = table[at]; entry != 0; entry = table[at]) {
            int number = (int) (entry & LOW) - 1;
            if ((int) (entry >>> HIGH) == hash && ids[number].equals(id)) {
                return number;
            }
            at = at + 1 & table.length - 1;
        }
        return -1;
    }

    /**
     * The numbers of several ids.
     *
     * @param asked of which the first {@code n} count, at most {@link #TOGETHER}
     * @param found where they are put, -1 for an id that there is not; as long as {@code asked}
     */
    void find(String[] asked, int n, int[] found) {
        int[] hashes = new int[n];
        for (int i = 0; i < n; i++) {
            hashes[i] = hash(asked[i]);
        }
        for (int i = 0; i < n; i++) {
            // Where its hash stands first; mostly its own entry.
            int at = hashes[i] & table.length - 1;
            long entry = table[at];
            while (entry != 0 && (int) (entry >>> HIGH) != hashes[i]) {
                at = at + 1 & table.length - 1;
                entry = table[at];
            }
            found[i] = (int) (entry & LOW) - 1;
        }
        for (int i = 0; i < n; i++) {
            if (found[i] >= 0 && !ids[found[i]].equals(asked[i])) {
                found[i] = find(asked[i], hashes[i]);
            }
        }
    }
}
