package rivo.core.audience;

/**
 * The positions for which nothing has been decided yet; it only shrinks, until it is filled again. Of one thread.
 *
 * <p>A set that is still wholly there is handed out as it is, without a copy: so what comes out shares the targets'
 * own memory. Where there were few from the first, each is looked up in a set that is larger by far.
 */
public final class Remaining {

    private final Positions all;
    private final BitBuffer words;
    private final long[] scratch;
    private int size;

    /** All from {@code from}, included, to {@code to}, excluded. */
    public Remaining(int from, int to) {
        this(Positions.range(from, to));
    }

    /** These. */
    public Remaining(Positions positions) {
        this.all = positions;
        this.words = new BitBuffer(positions.first(), positions.end());
        this.scratch = new long[words.raw().length];
        fill();
    }

    /** All that there were at first again. */
    public void fill() {
        words.clear(words.from(), words.to());
        all.addTo(words);
        size = all.size();
    }

    public boolean isEmpty() {
        return size == 0;
    }

    public int size() {
        return size;
    }

    public Positions toPositions() {
        return BitBuffer.shaped(words.raw(), words.raw().length, words.firstWord(), size, true);
    }

    /** Those of the set that are still here. */
    public Positions and(Positions set) {
        if (all instanceof ListedPositions few && few.isQuickerToLookUpIn(set)) {
            return few.and(words).and(set);
        }
        if (set instanceof ListedPositions listed) {
            return listed.and(words);
        }
        int first = words.firstWord();
        int a = Math.max(first, set.first() >> 6);
        int b = Math.min(first + scratch.length, (set.end() + 63) >> 6);
        if (a >= b || set.isEmpty()) {
            return Positions.NONE;
        }
        int found = set instanceof PackedPositions packed ? meet(packed, a, b) : meetRun(set, a, b);
        return found == set.size() ? set : take(a, b, found);
    }

    private int meet(PackedPositions set, int a, int b) {
        long[] mine = words.raw();
        long[] theirs = set.words();
        int here = words.firstWord();
        int there = set.firstWord();
        int found = 0;
        for (int w = a; w < b; w++) {
            long both = mine[w - here] & theirs[w - there];
            scratch[w - a] = both;
            found += Long.bitCount(both);
        }
        return found;
    }

    private int meetRun(Positions run, int a, int b) {
        long[] mine = words.raw();
        int here = words.firstWord();
        System.arraycopy(mine, a - here, scratch, 0, b - a);
        if (a == run.first() >> 6) {
            scratch[0] &= -1L << run.first();
        }
        if (b == (run.end() + 63) >> 6) {
            scratch[b - a - 1] &= -1L >>> -run.end();
        }
        int found = 0;
        for (int w = 0; w < b - a; w++) {
            found += Long.bitCount(scratch[w]);
        }
        return found;
    }

    private Positions take(int a, int b, int found) {
        return BitBuffer.shaped(scratch, b - a, a, found, true);
    }

    /** Takes these away, all of which are still here. */
    public void remove(Positions set) {
        set.removeFrom(words);
        size -= set.size();
    }
}
