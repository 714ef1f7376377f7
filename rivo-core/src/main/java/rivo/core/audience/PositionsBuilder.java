package rivo.core.audience;

/** Gathers positions in any order over a known span. Belongs to one method and one thread. */
public final class PositionsBuilder {

    private final BitBuffer words;

    /** For positions from {@code from}, included, to {@code to}, excluded; others are passed over. */
    public PositionsBuilder(int from, int to) {
        this.words = new BitBuffer(from, to);
    }

    public PositionsBuilder add(int position) {
        words.add(position);
        return this;
    }

    public PositionsBuilder addAll(Positions positions) {
        positions.addTo(words);
        return this;
    }

    /** Adds those whose bits are set, counted from {@code from}, a multiple of 64. */
    public PositionsBuilder addAll(long[] bits, int from) {
        words.or(bits, from >> 6);
        return this;
    }

    /** Adds those whose bits are set in one word, counted from {@code from}, a multiple of 64; the word has to be in the span. */
    public PositionsBuilder addWord(long bits, int from) {
        words.raw()[(from >> 6) - words.firstWord()] |= bits;
        return this;
    }

    /** What has been gathered; the builder must not be used any more. */
    public Positions build() {
        return words.toPositions();
    }
}
