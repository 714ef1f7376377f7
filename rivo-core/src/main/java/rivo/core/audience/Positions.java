package rivo.core.audience;

import java.util.Arrays;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * A set of positions in a list: of devices or people in OU order, or of person units. Immutable; safe for any thread.
 *
 * <p><b>How.</b> A set has one of three shapes, and always the one its members ask for, so that equal sets have equal
 * shapes. A run of positions is a {@link RunOfPositions}: two numbers, whatever its length. Fewer than one in
 * {@value #SPARSE} of its span are {@link ListedPositions}: sorted numbers. Everything else is {@link PackedPositions}:
 * a bit for each position of its span. Most targets of an organisation are of the first two shapes, which makes reading
 * them a fraction of reading bits for the whole fleet.
 */
public abstract sealed class Positions permits RunOfPositions, ListedPositions, PackedPositions {

    /** A set with fewer members than one in so many of its span is kept as a list. */
    static final int SPARSE = 64;

    public static final Positions NONE = new RunOfPositions(0, 0);

    /** The positions from {@code from}, included, to {@code to}, excluded. */
    public static Positions range(int from, int to) {
        return from >= to ? NONE : new RunOfPositions(from, to);
    }

    /** In any order, and as often as one likes. */
    public static Positions of(int... positions) {
        return ofUnsorted(positions.clone());
    }

    private static Positions ofUnsorted(int[] sorted) {
        Arrays.sort(sorted);
        int n = 0;
        for (int i = 0; i < sorted.length; i++) {
            if (i == 0 || sorted[i] != sorted[i - 1]) {
                sorted[n++] = sorted[i];
            }
        }
        return ofSorted(n == sorted.length ? sorted : Arrays.copyOf(sorted, n));
    }

    /** @param sorted ascending, each once; it becomes the set's own */
    public static Positions ofSorted(int[] sorted) {
        int n = sorted.length;
        if (n == 0) {
            return NONE;
        }
        int span = sorted[n - 1] - sorted[0] + 1;
        if (span == n) {
            return new RunOfPositions(sorted[0], sorted[n - 1] + 1);
        }
        if ((long) n * SPARSE < span || n < 3) {
            return new ListedPositions(sorted);
        }
        BitBuffer words = new BitBuffer(sorted[0], sorted[n - 1] + 1);
        for (int position : sorted) {
            words.add(position);
        }
        return words.toPositions();
    }

    /** The first member, or 0 when there is none. */
    public abstract int first();

    /** The position after the last member, or 0 when there is none. */
    public abstract int end();

    public abstract int size();

    public abstract boolean contains(int position);

    /** Calls with each position, in ascending order. */
    public abstract void forEach(IntConsumer consumer);

    /** Those at {@code from}, included, to {@code to}, excluded. */
    public abstract Positions in(int from, int to);

    /** Each of them so many positions further, or back; none may come to stand below 0. */
    abstract Positions shifted(int by);

    /** How many are at {@code from}, included, to {@code to}, excluded. */
    public abstract int countIn(int from, int to);

    /**
     * Sets a bit for each member, counted from {@code from}, as far as there are words.
     *
     * @param from a multiple of 64
     */
    public void addTo(long[] words, int from) {
        addTo(new BitBuffer(words, from));
    }

    /**
     * The same for one span after the other.
     *
     * @param passed what this gave for a span before; 0 for the first
     * @return a number for the next span
     */
    public int addTo(long[] words, int from, int passed) {
        addTo(words, from);
        return 0;
    }

    /** Sets the bits of those members that are in the words' span. */
    abstract void addTo(BitBuffer words);

    /** Clears the bits of those members that are in the words' span. */
    abstract void removeFrom(BitBuffer words);

    /** Clears the bits of all but the members. */
    abstract void keepIn(BitBuffer words);

    /** Those that satisfy the test. Costs a call for each member. */
    public Positions filter(IntPredicate test) {
        int[] kept = new int[size()];
        int[] n = {0};
        forEach(p -> {
            if (test.test(p)) {
                kept[n[0]++] = p;
            }
        });
        return n[0] == kept.length ? this : ofSorted(Arrays.copyOf(kept, n[0]));
    }

    public boolean isEmpty() {
        return size() == 0;
    }

    public Positions and(Positions other) {
        if (end() <= other.first() || other.end() <= first()) {
            return NONE;
        }
        if (other instanceof RunOfPositions) {
            return in(other.first(), other.end());
        }
        if (this instanceof RunOfPositions) {
            return other.in(first(), end());
        }
        if (this instanceof ListedPositions mine && other instanceof ListedPositions theirs) {
            ListedPositions shorter = mine.size() <= theirs.size() ? mine : theirs;
            ListedPositions longer = shorter == mine ? theirs : mine;
            return shorter.isWorthWalking(longer) ? shorter.walk(longer, true) : shorter.filter(longer::contains);
        }
        if (this instanceof ListedPositions mine) {
            return mine.lookUp((PackedPositions) other, true);
        }
        if (other instanceof ListedPositions theirs) {
            return theirs.lookUp((PackedPositions) this, true);
        }
        return BitBuffer.both((PackedPositions) this, (PackedPositions) other);
    }

    /** Whether some member is the other's too. Costs the way to the first such, at most. */
    public boolean meets(Positions other) {
        if (end() <= other.first() || other.end() <= first()) {
            return false;
        }
        if (this instanceof RunOfPositions) {
            return other.countIn(first(), end()) > 0;
        }
        if (other instanceof RunOfPositions || other instanceof ListedPositions && !(this instanceof ListedPositions)) {
            return other.meets(this);
        }
        return this instanceof ListedPositions mine ? mine.meetsAny(other)
                : BitBuffer.meet((PackedPositions) this, (PackedPositions) other);
    }

    public Positions or(Positions other) {
        return isEmpty() || other.isEmpty() ? isEmpty() ? other : this : union(List.of(this, other));
    }

    public Positions without(Positions other) {
        if (this == other) {
            return NONE;
        }
        if (isEmpty() || other.isEmpty() || end() <= other.first() || other.end() <= first()) {
            return this;
        }
        if (this instanceof ListedPositions mine) {
            if (other instanceof PackedPositions theirs) {
                return mine.lookUp(theirs, false);
            }
            return other instanceof ListedPositions theirs && mine.isWorthWalking(theirs) ? mine.walk(theirs, false)
                    : filter(p -> !other.contains(p));
        }
        BitBuffer words = new BitBuffer(first(), end());
        addTo(words);
        other.removeFrom(words);
        return words.toPositions();
    }

    /** The union of many; of none, nothing. Costs one pass over each, and over the bits of the span where they are not few. */
    public static Positions union(Iterable<Positions> sets) {
        int from = Integer.MAX_VALUE;
        int to = 0;
        long members = 0;
        Positions only = NONE;
        int filled = 0;
        for (Positions set : sets) {
            if (!set.isEmpty()) {
                from = Math.min(from, set.first());
                to = Math.max(to, set.end());
                members += set.size();
                only = set;
                filled++;
            }
        }
        if (filled < 2) {
            return only;
        }
        if (members * SPARSE < to - from) {
            int[] all = new int[(int) members];
            int[] n = {0};
            sets.forEach(set -> set.forEach(p -> all[n[0]++] = p));
            return filled == 2 ? ofSorted(merged(all, all.length - only.size())) : ofUnsorted(all);
        }
        BitBuffer words = new BitBuffer(from, to);
        sets.forEach(set -> set.addTo(words));
        return words.toPositions();
    }

    /** All of two ascending lists that stand one after the other, each once. */
    private static int[] merged(int[] lists, int second) {
        int[] all = new int[lists.length];
        int n = 0;
        for (int i = 0, j = second; i < second || j < lists.length; n++) {
            int next = j == lists.length || i < second && lists[i] < lists[j] ? lists[i] : lists[j];
            all[n] = next;
            i += i < second && lists[i] == next ? 1 : 0;
            j += j < lists.length && lists[j] == next ? 1 : 0;
        }
        return n == all.length ? all : Arrays.copyOf(all, n);
    }

    /** The positions in ascending order. */
    public IntStream stream() {
        return Arrays.stream(toArray());
    }

    /** The positions in ascending order. */
    public int[] toArray() {
        int[] all = new int[size()];
        int[] n = {0};
        forEach(p -> all[n[0]++] = p);
        return all;
    }

    @Override
    public boolean equals(Object other) {
        return this == other || other instanceof Positions set && size() == set.size() && first() == set.first()
                && end() == set.end() && hasMembersOf(set);
    }

    /** Whether the members are the same as those of a set of the same size and span, which therefore has the same shape. */
    abstract boolean hasMembersOf(Positions other);

    @Override
    public int hashCode() {
        return Arrays.hashCode(new int[] {first(), end(), size()});
    }

    @Override
    public String toString() {
        return Arrays.toString(toArray());
    }
}
