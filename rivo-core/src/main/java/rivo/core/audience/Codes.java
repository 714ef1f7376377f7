package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Numbers distinct values from 0 on, in the order in which they come. Of one thread.
 *
 * <p><b>How.</b> A table with open addressing, never more than half full, holds the hash of a value with its code, so that
 * a value is looked at only where its hash is the one; most come many times as the very same object, which settles it.
 *
 * @param <T> a value, compared by {@code equals}
 */
final class Codes<T> {

    private final List<T> distinct = new ArrayList<>();
    /** The hash in the upper half, one more than the code in the lower; 0 where there is none. */
    private long[] table = new long[64];
    /** Values often come many times in a row. */
    private @Nullable T last;
    private int lastCode;

    int of(T value) {
        if (value != last) {
            lastCode = find(value);
            last = value;
        }
        return lastCode;
    }

    private int find(T value) {
        int hash = value.hashCode();
        int mask = table.length - 1;
        for (int at = spread(hash) & mask;; at = (at + 1) & mask) {
            long entry = table[at];
            if (entry == 0) {
                return add(at, hash, value);
            }
            if ((int) (entry >>> Integer.SIZE) == hash) {
                T there = distinct.get((int) entry - 1);
                if (there == value || there.equals(value)) {
                    return (int) entry - 1;
                }
            }
        }
    }

    private int add(int at, int hash, T value) {
        distinct.add(value);
        table[at] = (long) hash << Integer.SIZE | distinct.size();
        if (distinct.size() * 2 > table.length) {
            grow();
        }
        return distinct.size() - 1;
    }

    private void grow() {
        long[] old = table;
        table = new long[old.length * 2];
        int mask = table.length - 1;
        for (long entry : old) {
            if (entry != 0) {
                int at = spread((int) (entry >>> Integer.SIZE)) & mask;
                while (table[at] != 0) {
                    at = (at + 1) & mask;
                }
                table[at] = entry;
            }
        }
    }

    private static int spread(int hash) {
        int mixed = hash * 0x9E3779B9;
        return mixed ^ mixed >>> 16;
    }

    /** By code. The caller's to keep once nothing more is added. */
    List<T> distinct() {
        return distinct;
    }
}
