package rivo.core.audience;

import java.util.BitSet;
import java.util.function.IntConsumer;

/** The targets that hold one device or one of its people, by their numbers. Filled once, then only read. */
public final class TargetRow {

    private final BitSet numbers = new BitSet();

    void add(int number) {
        numbers.set(number);
    }

    /** The numbers of the targets, as {@link Pair#number} gives them. */
    public void forEach(IntConsumer consumer) {
        for (int n = numbers.nextSetBit(0); n >= 0; n = numbers.nextSetBit(n + 1)) {
            consumer.accept(n);
        }
    }

    /** Whether the pair's target holds the device or one of its people; where not, the pair has nothing to say there. */
    public boolean mayHold(Pair pair) {
        return numbers.get(pair.number());
    }
}
