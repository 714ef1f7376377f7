package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;

/**
 * Numbers distinct values from 0 on, in the order in which they come. Most values come many times as the very same
 * object, so a place of the table is asked for identity first. Of one thread.
 *
 * @param <T> a value, compared by {@code equals}
 */
final class Codes<T> {

    private final List<T> distinct = new ArrayList<>();
    /** Open addressing, never more than half full: the code of the value that stands at the same place. */
    private int[] table = new int[64];
    /** Null where there is none. */
    private Object[] values = new Object[64];

    int of(T value) {
        int mask = table.length - 1;
        for (int at = spread(value.hashCode()) & mask;; at = (at + 1) & mask) {
            Object there = values[at];
            if (there == value || there != null && there.equals(value)) {
                return table[at];
            }
            if (there == null) {
                return add(at, value);
            }
        }
    }

    private int add(int at, T value) {
        int code = distinct.size();
        distinct.add(value);
        values[at] = value;
        table[at] = code;
        if (distinct.size() * 2 > table.length) {
            grow();
        }
        return code;
    }

    private void grow() {
        table = new int[table.length * 2];
        values = new Object[table.length];
        int mask = table.length - 1;
        for (int code = 0; code < distinct.size(); code++) {
            int at = spread(distinct.get(code).hashCode()) & mask;
            while (values[at] != null) {
                at = (at + 1) & mask;
            }
            values[at] = distinct.get(code);
            table[at] = code;
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
