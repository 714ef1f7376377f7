package rivo.core.estate;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import java.util.function.IntConsumer;

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

    /** So many are looked up together at the most. */
    static final int TOGETHER = 128;
    private static final int MOST_STEPS = 64;
    /** So many numbers too many are no matter. */
    private static final int FEW = 1000;
    private static final int NOT_AT_FIRST = -2;
    private static final int HIGH = 32;
    private static final long LOW = 0xffff_ffffL;

    private final String[] ids;
    /** The hash above, the number and 1 below; 0 where nothing stands. */
    private final long[] table;
    private final Map<String, Integer> crowded = new HashMap<>();
    private final BitSet again = new BitSet();

    /** @param ids of one that comes again, the first counts; the array becomes this one's */
    IdIndex(String[] ids) {
        this.ids = ids;
        this.table = new long[Integer.highestOneBit(Math.max(1, ids.length)) << 2];
        for (int n = 0; n < ids.length; n++) {
            put(ids[n], n);
        }
    }

    static <T> IdIndex of(Collection<T> all, Function<T, String> id) {
        String[] ids = new String[all.size()];
        int n = 0;
        for (T one : all) {
            ids[n++] = id.apply(one);
        }
        return new IdIndex(ids);
    }

    private void put(String id, int number) {
        int hash = hash(id);
        for (int step = 0; step < MOST_STEPS; step++) {
            int at = hash + step & table.length - 1;
            if (table[at] == 0) {
                table[at] = (long) hash << HIGH | number + 1;
                return;
            }
            if (isOf(table[at], hash) && ids[number(table[at])].equals(id)) {
                again.set(number);
                return;
            }
        }
        if (crowded.putIfAbsent(id, number) != null) {
            again.set(number);
        }
    }

    /**
     * The index of others, most of which are here: those keep their numbers, and what is not there any more keeps its own. Where that is most of all numbers,
     * all are numbered anew.
     *
     * @param all that are to be found
     * @param some of those, all that are not here among them
     */
    <T> IdIndex following(Collection<T> all, Collection<T> some, Function<T, String> id) {
        String[] more = some.stream().map(id).filter(one -> !has(one)).distinct().toArray(String[]::new);
        if (ids.length + more.length > 2 * all.size() + FEW) {
            return of(all, id);
        }
        if (more.length == 0) {
            return this;
        }
        String[] next = Arrays.copyOf(ids, ids.length + more.length);
        System.arraycopy(more, 0, next, ids.length, more.length);
        return new IdIndex(next);
    }

    /** Whether all that are in an earlier one have the same numbers here. Costs a comparison of references for each. */
    boolean follows(IdIndex earlier) {
        return ids.length >= earlier.ids.length && Arrays.equals(ids, 0, earlier.ids.length, earlier.ids, 0, earlier.ids.length);
    }

    /** How many ids were given. */
    int size() {
        return ids.length;
    }

    /** Whether the id of this number stands before, too. */
    boolean isAgain(int number) {
        return again.get(number);
    }

    boolean has(String id) {
        return find(id) >= 0;
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

    /** The numbers of all of these. */
    <T> int[] numbers(T[] all, Function<T, String> id) {
        NumberList numbers = new NumberList(all.length);
        Finder finder = new Finder(numbers::add);
        for (T one : all) {
            finder.ask(id.apply(one));
        }
        finder.end();
        return numbers.toArray();
    }

    /** Finds ids one after the other, many at a time. Of one thread. */
    final class Finder {

        private final IntConsumer taker;
        private final String[] asked = new String[TOGETHER];
        private final int[] found = new int[TOGETHER];
        private int n;

        /** @param taker is given the numbers in the order of the ids, -1 for one that there is not: all of them by {@link #end} */
        Finder(IntConsumer taker) {
            this.taker = taker;
        }

        void ask(String id) {
            asked[n++] = id;
            if (n == TOGETHER) {
                end();
            }
        }

        void end() {
            find(asked, n, found);
            for (int i = 0; i < n; i++) {
                taker.accept(found[i]);
            }
            n = 0;
        }
    }
}
