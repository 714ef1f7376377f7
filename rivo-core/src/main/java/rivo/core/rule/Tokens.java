package rivo.core.rule;

import java.util.ArrayList;
import java.util.List;

/** Cuts a rule's text into tokens. Strings and numbers are written as in JSON (RFC 8259). */
final class Tokens {

    private static final int HEX = 16;
    private static final int UNICODE_DIGITS = 4;

    private final String text;
    private final List<Token> tokens = new ArrayList<>();
    private int at;

    private Tokens(String text) {
        this.text = text;
    }

    /** The tokens of the text, the last of them its end. */
    static List<Token> of(String text) {
        Tokens tokens = new Tokens(text);
        tokens.cut();
        return List.copyOf(tokens.tokens);
    }

    private void cut() {
        while (at < text.length()) {
            char c = text.charAt(at);
            if (Character.isWhitespace(c)) {
                at++;
            } else if (c == '"') {
                string();
            } else if (c == '-' || isDigit(c)) {
                number();
            } else if (isLetter(c)) {
                word();
            } else {
                sign(c);
            }
        }
        tokens.add(new Token(Token.Kind.END, "", text.length()));
    }

    private void sign(char c) {
        Token.Kind kind = switch (c) {
            case '(' -> Token.Kind.OPEN;
            case ')' -> Token.Kind.CLOSE;
            case '[' -> Token.Kind.OPEN_BRACKET;
            case ']' -> Token.Kind.CLOSE_BRACKET;
            default -> throw error(at, "'" + Character.toString(text.codePointAt(at))
                    + "' has no meaning here; put texts in double quotes.");
        };
        tokens.add(new Token(kind, String.valueOf(c), at++));
    }

    private void word() {
        int from = at;
        while (at < text.length() && (isLetter(text.charAt(at)) || isDigit(text.charAt(at))
                || "._-:$".indexOf(text.charAt(at)) >= 0)) {
            at++;
        }
        tokens.add(new Token(Token.Kind.WORD, text.substring(from, at), from));
    }

    private void number() {
        int from = at++;
        while (at < text.length() && (isDigit(text.charAt(at)) || ".eE+-".indexOf(text.charAt(at)) >= 0)) {
            at++;
        }
        String written = text.substring(from, at);
        if (!written.matches("-?(?:0|[1-9][0-9]{0,30})(?:\\.[0-9]{1,30})?(?:[eE][+-]?[0-9]{1,3})?")) {
            throw error(from, "'" + written + "' is no number; write one such as 8 or 7.5.");
        }
        tokens.add(new Token(Token.Kind.NUMBER, written, from));
    }

    private void string() {
        int from = at++;
        StringBuilder value = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '"') {
            char c = text.charAt(at++);
            if (c < ' ') {
                throw error(at - 1, "A text holds no line breaks and control characters; write \\n and the like.");
            }
            value.append(c == '\\' ? escape() : c);
        }
        if (at == text.length()) {
            throw error(from, "This text has no end; put a double quote after it.");
        }
        at++;
        tokens.add(new Token(Token.Kind.STRING, value.toString(), from));
    }

    private char escape() {
        if (at == text.length()) {
            throw error(at - 1, "A backslash must be followed by what it escapes.");
        }
        char c = text.charAt(at++);
        return switch (c) {
            case '"', '\\', '/' -> c;
            case 'b' -> '\b';
            case 'f' -> '\f';
            case 'n' -> '\n';
            case 'r' -> '\r';
            case 't' -> '\t';
            case 'u' -> unicode();
            default -> throw error(at - 2, "'\\" + c + "' escapes nothing; a backslash itself is written \\\\.");
        };
    }

    private char unicode() {
        String digits = text.substring(at, Math.min(text.length(), at + UNICODE_DIGITS));
        if (!digits.matches("[0-9a-fA-F]{4}")) {
            throw error(at - 2, "\\u takes four hexadecimal digits.");
        }
        at += UNICODE_DIGITS;
        return (char) Integer.parseInt(digits, HEX);
    }

    private static boolean isLetter(char c) {
        return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z';
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    private RuleException error(int position, String sentence) {
        return at(text, position, sentence);
    }

    /** An error at a position of a text, in lines and columns. */
    static RuleException at(String text, int position, String sentence) {
        String before = text.substring(0, Math.min(position, text.length()));
        int line = (int) before.chars().filter(c -> c == '\n').count() + 1;
        return new RuleException(line, before.length() - before.lastIndexOf('\n'), sentence);
    }
}
