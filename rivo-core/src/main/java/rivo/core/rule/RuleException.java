package rivo.core.rule;

/** A rule that does not parse, or compares what cannot be compared. Says where, and what was expected. */
public final class RuleException extends RuntimeException {

    private final int line;
    private final int column;

    RuleException(int line, int column, String sentence) {
        super("Line " + line + ", column " + column + ": " + sentence);
        this.line = line;
        this.column = column;
    }

    /** From 1 on. */
    public int line() {
        return line;
    }

    /** From 1 on, in characters. */
    public int column() {
        return column;
    }
}
