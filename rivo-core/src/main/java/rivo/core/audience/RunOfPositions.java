package rivo.core.audience;

import java.util.function.IntConsumer;

/** A run: every position from {@code from} up to, not including, {@code to}. */
final class RunOfPositions extends Positions {

    private final int from;
    private final int to;

    RunOfPositions(int from, int to) {
        this.from = from;
        this.to = to;
    }

    @Override
    public int first() {
        return from;
    }

    @Override
    public int end() {
        return to;
    }

    @Override
    public int size() {
        return to - from;
    }

    @Override
    public boolean contains(int position) {
        return from <= position && position < to;
    }

    @Override
    public void forEach(IntConsumer consumer) {
        for (int p = from; p < to; p++) {
            consumer.accept(p);
        }
    }

    @Override
    public Positions in(int lowest, int end) {
        return lowest <= from && to <= end ? this : range(Math.max(from, lowest), Math.min(to, end));
    }

    @Override
    Positions shifted(int by) {
        return range(from + by, to + by);
    }

    @Override
    public int countIn(int lowest, int end) {
        return Math.max(0, Math.min(to, end) - Math.max(from, lowest));
    }

    @Override
    void addTo(BitBuffer words) {
        words.set(from, to);
    }

    @Override
    void removeFrom(BitBuffer words) {
        words.clear(from, to);
    }

    @Override
    void keepIn(BitBuffer words) {
        words.clear(0, from);
        words.clear(to, Integer.MAX_VALUE);
    }

    @Override
    boolean hasMembersOf(Positions other) {
        return true;
    }
}
