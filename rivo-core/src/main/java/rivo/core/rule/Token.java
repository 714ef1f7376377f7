package rivo.core.rule;

/**
 * A piece of a rule's text.
 *
 * @param text as written; of a string, what it stands for
 * @param at the position of its first character, from 0 on
 */
record Token(Kind kind, String text, int at) {

    /** What sort of piece it is. */
    enum Kind {
        WORD, STRING, NUMBER, OPEN, CLOSE, OPEN_BRACKET, CLOSE_BRACKET, END
    }

    boolean isWord(String word) {
        return kind == Kind.WORD && text.equalsIgnoreCase(word);
    }

    /** As an error names it. */
    String shown() {
        return switch (kind) {
            case END -> "the end of the rule";
            case STRING -> "the text \"" + text + "\"";
            case WORD, NUMBER, OPEN, CLOSE, OPEN_BRACKET, CLOSE_BRACKET -> "'" + text + "'";
        };
    }
}
