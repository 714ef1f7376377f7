package rivo.core.audience;

import java.util.Arrays;

/**
 * Numbers positions that lie apart from 0 on, in their order, so that they can be looked at as if they lay together. Immutable; safe for any thread.
 *
 * <p><b>How.</b> The number of a position is that of the positions before it: those before its word, and those before it in the word.
 */
public final class Numbering {

    private final Positions numbered;
    /** A bit for each of them from this word on, and how many are before each word. */
    private final int firstWord;
    private final long[] bits;
    private final int[] before;

    /** @param numbered at least one */
    public Numbering(Positions numbered) {
        this.numbered = numbered;
        this.firstWord = numbered.first() >> 6;
        this.bits = new long[(numbered.end() - 1 >> 6) - firstWord + 1];
        this.before = new int[bits.length];
        numbered.addTo(bits, firstWord << 6);
        for (int w = 1; w < bits.length; w++) {
            before[w] = before[w - 1] + Long.bitCount(bits[w - 1]);
        }
    }

    /** How many have a number. */
    public int size() {
        return numbered.size();
    }

    /** The numbers of those that are in the set. Costs a step for each of its members that are listed, or a word of its bits; or where it is the larger by far, a search for each that has a number. */
    public Positions numbers(Positions set) {
        if (set instanceof RunOfPositions) {
            Positions within = set.in(numbered.first(), numbered.end());
            return within.isEmpty() ? within : Positions.range(number(within.first()), number(within.end()));
        }
        if (numbered instanceof ListedPositions few && few.isQuickerToLookUpIn(set)) {
            return lookedUp(few.sorted(), set);
        }
        if (set instanceof ListedPositions listed) {
            return listed(listed.sorted(), listed.index(numbered.first()), listed.index(numbered.end()));
        }
        return packed((PackedPositions) set);
    }

    /** How many are before a position, which is not after the last. */
    private int number(int position) {
        int word = (position >> 6) - firstWord;
        return word == bits.length ? size() : before[word] + Long.bitCount(bits[word] & (1L << position) - 1);
    }

    private static Positions lookedUp(int[] positions, Positions set) {
        int[] numbers = new int[positions.length];
        int n = 0;
        for (int i = 0; i < positions.length; i++) {
            numbers[n] = i;
            n += set.contains(positions[i]) ? 1 : 0;
        }
        return Positions.ofSorted(n == numbers.length ? numbers : Arrays.copyOf(numbers, n));
    }

    private Positions listed(int[] positions, int from, int to) {
        int[] numbers = new int[to - from];
        int n = 0;
        for (int i = from; i < to; i++) {
            int position = positions[i];
            numbers[n] = number(position);
            n += (int) (bits[(position >> 6) - firstWord] >>> position & 1);
        }
        return Positions.ofSorted(n == numbers.length ? numbers : Arrays.copyOf(numbers, n));
    }

    private Positions packed(PackedPositions set) {
        BitBuffer numbers = new BitBuffer(0, size());
        long[] into = numbers.raw();
        long[] words = set.words();
        int end = Math.min(firstWord + bits.length, set.firstWord() + words.length);
        for (int w = Math.max(firstWord, set.firstWord()); w < end; w++) {
            long of = bits[w - firstWord];
            long within = words[w - set.firstWord()] & of;
            if (within != 0) {
                add(numbers(within, of), before[w - firstWord], into);
            }
        }
        return numbers.toPositions();
    }

    /** A bit for each of some in a word, counted among all that have a number there: of those that have, or of those that have not, by which are fewer. */
    private static long numbers(long some, long all) {
        int count = Long.bitCount(all);
        boolean few = 2 * Long.bitCount(some) <= count;
        long numbers = 0;
        for (long rest = few ? some : all & ~some; rest != 0; rest &= rest - 1) {
            numbers |= 1L << Long.bitCount(all & (rest & -rest) - 1);
        }
        return few ? numbers : -1L >>> -count & ~numbers;
    }

    /** Adds the bits of a word where the first of them is at this place. */
    private static void add(long bits, int first, long[] into) {
        into[first >> 6] |= bits << first;
        long beyond = bits >>> 1 >>> ~first;
        if (beyond != 0) {
            into[(first >> 6) + 1] |= beyond;
        }
    }

    /** Those that have these numbers. */
    public Positions positions(Positions numbers) {
        if (numbers.size() == size()) {
            return numbered;
        }
        int[] found = new int[numbers.size()];
        int[] word = {0};
        int[] n = {0};
        numbers.forEach(number -> {
            while (word[0] + 1 < before.length && before[word[0] + 1] <= number) {
                word[0]++;
            }
            found[n[0]++] = (firstWord + word[0] << 6) + place(bits[word[0]], number - before[word[0]]);
        });
        return Positions.ofSorted(found);
    }

    /** The place in a word of the bit that is set after so many others. */
    private static int place(long word, int others) {
        long rest = word;
        for (int i = 0; i < others; i++) {
            rest &= rest - 1;
        }
        return Long.numberOfTrailingZeros(rest);
    }
}
