package rivo.core.estate;

import java.util.HashMap;
import java.util.Map;

/**
 * Finds the number of an id among many: numbers are from 0 on, in the order in which the ids were given. Immutable; safe for any thread.
 *
 * <p><b>How.</b> An open table with linear probing, at most half full, whose entries hold the hash of an id beside its number: what has
 * another hash is passed over without a look at the id itself. Ids that find no place within {@link #MOST_STEPS}, since somebody made up many
 * with the same hash, are kept in a map. Tens of millions of memberships are looked up one after the other, and each lookup waits for memory
 * three times: for the id that is asked for, for the table, and for the id that stands there, unless that is the very object. Many are
 * therefore looked up together, step by step, so that they wait at the same time.
 */
final class IdIndex {

    /** So many are looked up together. */
    static final int TOGETHER = 128;
    private static final int MOST_STEPS = 64;
    private static final int NOT_AT_FIRST = -2;
    private static final int HIGH = 32;
    private static final long LOW = 0xffff_ffffL;

    private final String[] ids;
    /** The hash above, the number and 1 below; 0 where nothing stands. */
    private final long[] table;
    private final Map<String, Integer> crowded = new HashMap<>();

    /** @param ids each once; the array becomes this one's */
    IdIndex(String[] ids) {
        this.ids = ids;
        this.table = new long[Integer.highestOneBit(Math.max(1, ids.length)) << 2];
        for (int n = 0; n < ids.length; n++) {
            put(ids[n], n);
        }
    }

    private void put(String id, int number) {
        int hash = hash(id);
        for (int step = 0; step < MOST_STEPS; step++) {
            int at = hash + step & table.length - 1;
            if (table[at] == 0) {
                table[at] = (long) hash << HIGH | number + 1;
                return;
            }
        }
        crowded.put(id, number);
    }

    /** Ids differ in their last letters most: those have to reach the low bits and the high ones. */
    private static int hash(String id) {
        int hash = id.hashCode() * 0x9e37_79b9;
        return hash ^ hash >>> 15;
    }

    /** The number of an id; -1 when there is none such. */
    int find(String id) {
        int hash = hash(id);
        for (int step = 0; step < MOST_STEPS; step++) {
            long entry = table[hash + step & table.length - 1];
            if (entry == 0) {
                return -1;
            }
            if (isOf(entry, hash) && ids[number(entry)].equals(id)) {
                return number(entry);
            }
        }
        return crowded.getOrDefault(id, -1);
    }

    private static boolean isOf(long entry, int hash) {
        return (int) (entry >>> HIGH) == hash;
    }

    /** -1 of an entry where nothing stands. */
    private static int number(long entry) {
        return (int) (entry & LOW) - 1;
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
            long entry = table[hashes[i] & table.length - 1];
            found[i] = entry == 0 || isOf(entry, hashes[i]) ? number(entry) : NOT_AT_FIRST;
        }
        for (int i = 0; i < n; i++) {
            if (found[i] == NOT_AT_FIRST || found[i] >= 0 && !ids[found[i]].equals(asked[i])) {
                found[i] = find(asked[i]);
            }
        }
    }
}
