package rivo.core.resolve;

import java.util.Arrays;

/**
 * Works on sets of lanes, each a bit in an array of words. Only the words from one to another are looked at, those that hold the units of a turn: outside them
 * a set may hold anything. Of one thread.
 */
final class LaneSets {

    private final int words;
    private int from;
    private int to;
    private long[][] memory = {};
    private int taken;

    /** @param words of each set */
    LaneSets(int words) {
        this.words = words;
    }

    int words() {
        return words;
    }

    /** From now on the words that hold any of these are looked at; whether there are any. */
    boolean look(long[] at) {
        from = 0;
        to = words;
        while (from < to && at[from] == 0) {
            from++;
        }
        while (from < to && at[to - 1] == 0) {
            to--;
        }
        return from < to;
    }

    /** From now on all words are looked at. */
    void lookEverywhere() {
        from = 0;
        to = words;
    }

    int from() {
        return from;
    }

    int to() {
        return to;
    }

    boolean any(long[] set) {
        return Bits.any(set, from, to);
    }

    /** How much memory is in use, for {@link #giveBack}. */
    int taken() {
        return taken;
    }

    /** A set with nothing in it, among the words that are looked at. */
    long[] none() {
        long[] set = some();
        Arrays.fill(set, from, to, 0);
        return set;
    }

    /** The same with anything in it, to be written over. */
    long[] some() {
        if (taken == memory.length) {
            memory = Arrays.copyOf(memory, 2 * taken + 4);
        }
        long[] set = memory[taken];
        if (set == null) {
            set = new long[words];
            memory[taken] = set;
        }
        taken++;
        return set;
    }

    /** The same set again. */
    long[] copy(long[] set) {
        long[] copy = some();
        System.arraycopy(set, from, copy, from, to - from);
        return copy;
    }

    /** Those in both. */
    long[] both(long[] one, long[] other) {
        long[] both = some();
        Bits.both(one, other, both, from, to);
        return both;
    }

    /** Those of one that are not in the other. */
    long[] without(long[] one, long[] other) {
        long[] rest = some();
        Bits.without(one, other, rest, from, to);
        return rest;
    }

    boolean meet(long[] one, long[] other) {
        return Bits.meet(one, other, from, to);
    }

    /** Takes some out of a set. */
    void remove(long[] set, long[] some) {
        Bits.remove(set, some, from, to);
    }

    /** Adds some to a set. */
    void add(long[] set, long[] some) {
        Bits.add(set, some, from, to);
    }

    /** Leaves of a set what is in another. */
    void keep(long[] set, long[] other) {
        Bits.keep(set, other, from, to);
    }

    /** Leaves of a set what is in one of two others. */
    void keepEither(long[] set, long[] one, long[] other) {
        Bits.keepEither(set, one, other, from, to);
    }

    /** Sets taken since are not used any more. */
    void giveBack(int since) {
        taken = since;
    }
}
