package rivo.core.audience;

import java.util.Arrays;
import java.util.function.IntConsumer;

/** Many positions: a bit for each of the span, in words of 64, never changed. */
final class PackedPositions extends Positions {

    /** The first and the last word hold a member each. */
    private final long[] words;
    private final int firstWord;
    private final int size;

    PackedPositions(long[] words, int firstWord, int size) {
        this.words = words;
        this.firstWord = firstWord;
        this.size = size;
    }

    long[] words() {
        return words;
    }

    int firstWord() {
        return firstWord;
    }

    @Override
    public int first() {
        return (firstWord << 6) + Long.numberOfTrailingZeros(words[0]);
    }

    @Override
    public int end() {
        int last = words.length - 1;
        return ((firstWord + last) << 6) + 64 - Long.numberOfLeadingZeros(words[last]);
    }

    @Override
    public int size() {
        return size;
    }

    @Override
    public boolean contains(int position) {
        int w = (position >> 6) - firstWord;
        return w >= 0 && w < words.length && (words[w] >>> position & 1) != 0;
    }

    @Override
    public void forEach(IntConsumer consumer) {
        for (int w = 0; w < words.length; w++) {
            int base = (firstWord + w) << 6;
            for (long rest = words[w]; rest != 0; rest &= rest - 1) {
                consumer.accept(base + Long.numberOfTrailingZeros(rest));
            }
        }
    }

    @Override
    public Positions in(int from, int to) {
        int first = first();
        int end = end();
        if (from <= first && end <= to) {
            return this;
        }
        int a = Math.max(from, first);
        int b = Math.min(to, end);
        if (a >= b) {
            return NONE;
        }
        BitBuffer part = new BitBuffer(a, b);
        addTo(part);
        return part.toPositions();
    }

    @Override
    Positions shifted(int by) {
        long[] moved = new long[words.length + 1];
        int bits = by & 63;
        for (int w = 0; w < words.length; w++) {
            moved[w] |= words[w] << bits;
            moved[w + 1] |= bits == 0 ? 0 : words[w] >>> -bits;
        }
        return BitBuffer.shaped(moved, moved.length, firstWord + (by >> 6), size, false);
    }

    @Override
    public int countIn(int from, int to) {
        int a = Math.max(from, firstWord << 6);
        int b = Math.min(to, (firstWord + words.length) << 6);
        if (a >= b) {
            return 0;
        }
        int w = (a >> 6) - firstWord;
        int last = ((b - 1) >> 6) - firstWord;
        long head = -1L << a;
        long tail = -1L >>> -b;
        if (w == last) {
            return Long.bitCount(words[w] & head & tail);
        }
        int count = Long.bitCount(words[w] & head) + Long.bitCount(words[last] & tail);
        while (++w < last) {
            count += Long.bitCount(words[w]);
        }
        return count;
    }

    @Override
    void addTo(BitBuffer target) {
        target.or(words, firstWord);
    }

    @Override
    void removeFrom(BitBuffer target) {
        target.andNot(words, firstWord);
    }

    @Override
    void keepIn(BitBuffer target) {
        target.and(words, firstWord);
    }

    @Override
    boolean hasMembersOf(Positions other) {
        return Arrays.equals(words, ((PackedPositions) other).words);
    }
}
