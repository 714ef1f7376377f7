package rivo.core.audience;

import java.util.Arrays;

/** Bits over a fixed span of positions that may still change. Belongs to the method that fills it. */
final class BitBuffer {

    private final int from;
    private final int to;
    private final int firstWord;
    private final long[] words;

    /** All clear, for positions from {@code from}, included, to {@code to}, excluded; others are never set. */
    BitBuffer(int from, int to) {
        this.from = from;
        this.to = to;
        this.firstWord = from >> 6;
        this.words = new long[to <= from ? 0 : ((to - 1) >> 6) - firstWord + 1];
    }

    /** Over these words, which stay the caller's: the first bit is that of {@code from}, a multiple of 64. */
    BitBuffer(long[] words, int from) {
        this.from = from;
        this.to = from + words.length * Long.SIZE;
        this.firstWord = from >> 6;
        this.words = words;
    }

    void add(int position) {
        if (position >= from && position < to) {
            words[(position >> 6) - firstWord] |= 1L << position;
        }
    }

    void set(int lowest, int end) {
        int a = Math.max(lowest, from);
        int b = Math.min(end, to);
        if (a >= b) {
            return;
        }
        int first = (a >> 6) - firstWord;
        int last = ((b - 1) >> 6) - firstWord;
        long head = -1L << a;
        long tail = -1L >>> -b;
        if (first == last) {
            words[first] |= head & tail;
            return;
        }
        words[first] |= head;
        Arrays.fill(words, first + 1, last, -1L);
        words[last] |= tail;
    }

    void clear(int lowest, int end) {
        int a = Math.max(lowest, from);
        int b = Math.min(end, to);
        if (a >= b) {
            return;
        }
        int first = (a >> 6) - firstWord;
        int last = ((b - 1) >> 6) - firstWord;
        long head = -1L << a;
        long tail = -1L >>> -b;
        if (first == last) {
            words[first] &= ~(head & tail);
            return;
        }
        words[first] &= ~head;
        Arrays.fill(words, first + 1, last, 0L);
        words[last] &= ~tail;
    }

    void or(long[] other, int otherFirst) {
        int a = Math.max(firstWord, otherFirst);
        int b = Math.min(firstWord + words.length, otherFirst + other.length);
        for (int w = a; w < b; w++) {
            words[w - firstWord] |= other[w - otherFirst];
        }
        clearOutside();
    }

    void andNot(long[] other, int otherFirst) {
        int a = Math.max(firstWord, otherFirst);
        int b = Math.min(firstWord + words.length, otherFirst + other.length);
        for (int w = a; w < b; w++) {
            words[w - firstWord] &= ~other[w - otherFirst];
        }
    }

    void and(long[] other, int otherFirst) {
        int otherEnd = otherFirst + other.length;
        for (int w = 0; w < words.length; w++) {
            int at = firstWord + w;
            words[w] &= at < otherFirst || at >= otherEnd ? 0 : other[at - otherFirst];
        }
    }

    /** Takes the bits back that a whole-word operation set outside the span. */
    private void clearOutside() {
        if (words.length > 0) {
            words[0] &= -1L << from;
            words[words.length - 1] &= -1L >>> -to;
        }
    }

    /** This as a set of the shape its members ask for. The words are copied, or given away trimmed. */
    Positions toPositions() {
        int size = 0;
        for (long word : words) {
            size += Long.bitCount(word);
        }
        return shaped(words, words.length, firstWord, size, false);
    }

    /**
     * The set of so many members whose bits stand in the first {@code length} of these words.
     *
     * @param scratch whether the words go on being used, and so are copied
     */
    static Positions shaped(long[] words, int length, int firstWord, int size, boolean scratch) {
        if (size == 0) {
            return Positions.NONE;
        }
        int a = 0;
        int b = length;
        while (words[a] == 0) {
            a++;
        }
        while (words[b - 1] == 0) {
            b--;
        }
        int first = ((firstWord + a) << 6) + Long.numberOfTrailingZeros(words[a]);
        int end = ((firstWord + b) << 6) - Long.numberOfLeadingZeros(words[b - 1]);
        if (end - first == size) {
            return new RunOfPositions(first, end);
        }
        if ((long) size * Positions.SPARSE < end - first || size < 3) {
            return new ListedPositions(listed(words, firstWord, a, b, size));
        }
        boolean whole = a == 0 && b == words.length;
        return new PackedPositions(whole && !scratch ? words : Arrays.copyOfRange(words, a, b), firstWord + a, size);
    }

    private static int[] listed(long[] words, int firstWord, int a, int b, int size) {
        int[] sorted = new int[size];
        int n = 0;
        for (int w = a; w < b; w++) {
            for (long rest = words[w]; rest != 0; rest &= rest - 1) {
                sorted[n++] = ((firstWord + w) << 6) + Long.numberOfTrailingZeros(rest);
            }
        }
        return sorted;
    }

    int from() {
        return from;
    }

    int to() {
        return to;
    }

    /** Whether the two have a member in common. */
    static boolean meet(PackedPositions one, PackedPositions other) {
        int first = Math.max(one.firstWord(), other.firstWord());
        int end = Math.min(one.firstWord() + one.words().length, other.firstWord() + other.words().length);
        for (int w = first; w < end; w++) {
            if ((one.words()[w - one.firstWord()] & other.words()[w - other.firstWord()]) != 0) {
                return true;
            }
        }
        return false;
    }

    /** Those in both. */
    static Positions both(PackedPositions one, PackedPositions other) {
        int first = Math.max(one.firstWord(), other.firstWord());
        int end = Math.min(one.firstWord() + one.words().length, other.firstWord() + other.words().length);
        if (first >= end) {
            return Positions.NONE;
        }
        long[] words = new long[end - first];
        long[] mine = one.words();
        long[] theirs = other.words();
        int here = first - one.firstWord();
        int there = first - other.firstWord();
        int size = 0;
        for (int w = 0; w < words.length; w++) {
            long both = mine[here + w] & theirs[there + w];
            words[w] = both;
            size += Long.bitCount(both);
        }
        return size == one.size() ? one : size == other.size() ? other : shaped(words, words.length, first, size, false);
    }

    long[] raw() {
        return words;
    }

    int firstWord() {
        return firstWord;
    }
}
