package rivo.core.audience;

import java.util.Arrays;
import java.util.function.IntConsumer;

/** The targets that hold one device or one of its people, by their numbers. Filled once, then only read. */
public final class TargetRow {

    private long[] words;
    private boolean simple;

    /** @param numbers how many there are, as far as is known */
    TargetRow(int numbers) {
        words = new long[(numbers >> 6) + 1];
    }

    void add(int number) {
        if (number >> 6 >= words.length) {
            words = Arrays.copyOf(words, Math.max(words.length * 2, (number >> 6) + 1));
        }
        words[number >> 6] |= 1L << number;
    }

    void markSimple() {
        simple = true;
    }

    /** Whether there is one person at most, and no fence above the device or that person: most are so. */
    boolean isSimple() {
        return simple;
    }

    boolean has(int number) {
        return number >> 6 < words.length && (words[number >> 6] >>> number & 1) != 0;
    }

    /** The numbers of the targets, as {@link Pair#number} gives them. */
    public void forEach(IntConsumer consumer) {
        for (int w = 0; w < words.length; w++) {
            for (long rest = words[w]; rest != 0; rest &= rest - 1) {
                consumer.accept((w << 6) + Long.numberOfTrailingZeros(rest));
            }
        }
    }
}
