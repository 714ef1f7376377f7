package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Numbers distinct values from 0 on, in the order in which they come. Of one thread.
 *
 * <p><b>How.</b> A table with open addressing, at most a quarter full, holds each value beside its code. Values come a
 * block at a time: first all are asked for their hashes, then all are looked up, so that nobody waits for the memory of
 * each in turn. Most come many times as the very same object, which settles it at one look.
 *
 * @param <T> a value, compared by {@code equals}
 */
final class Codes<T> {

    /** Spreads what differs over the upper bits, of which the place in the table is made. */
    private static final int SPREAD = 0x9E3779B9;

    private final List<T> distinct = new ArrayList<>();
    private @Nullable Object[] values = new Object[64];
    private int[] codes = new int[64];
    private int[] hashes = {};

    int of(T value) {
        return find(value.hashCode(), value);
    }

    /** The codes of the first {@code n} values. */
    int[] of(T[] block, int n) {
        int[] found = new int[n];
        if (hashes.length < n) {
            hashes = new int[n];
        }
        for (int i = 0; i < n; i++) {
            hashes[i] = block[i].hashCode();
        }
        for (int i = 0; i < n; i++) {
            int place = place(hashes[i]);
            found[i] = values[place] == block[i] ? codes[place] : find(hashes[i], block[i]);
        }
        return found;
    }

    private int place(int hash) {
        return hash * SPREAD >>> Integer.numberOfLeadingZeros(values.length - 1);
    }

    private int find(int hash, T value) {
        int mask = values.length - 1;
        for (int at = place(hash);; at = (at + 1) & mask) {
            Object there = values[at];
            if (there == null) {
                return add(at, value);
            }
            if (there == value || there.hashCode() == hash && there.equals(value)) {
                return codes[at];
            }
        }
    }

    private int add(int at, T value) {
        int code = distinct.size();
        distinct.add(value);
        values[at] = value;
        codes[at] = code;
        if (distinct.size() * 4 > values.length) {
            grow();
        }
        return code;
    }

    private void grow() {
        values = new Object[values.length * 2];
        codes = new int[values.length];
        int mask = values.length - 1;
        for (int code = 0; code < distinct.size(); code++) {
            int at = place(distinct.get(code).hashCode());
            while (values[at] != null) {
                at = (at + 1) & mask;
            }
            values[at] = distinct.get(code);
            codes[at] = code;
        }
    }

    /** By code. The caller's to keep once nothing more is added. */
    List<T> distinct() {
        return distinct;
    }
}
