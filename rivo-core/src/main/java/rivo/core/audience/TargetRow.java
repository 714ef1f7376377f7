package rivo.core.audience;

import java.util.Arrays;
import java.util.function.IntConsumer;

/** The targets that hold one device or one of its people, by their numbers. Filled once, then only read. */
public final class TargetRow {

    private long[] words = new long[16];

    void add(int number) {
        if (number >> 6 >= words.length) {
            words = Arrays.copyOf(words, Math.max(words.length * 2, (number >> 6) + 1));
        }
        words[number >> 6] |= 1L << number;
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
