package rivo.core.rule;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Reads the filter grammar of RFC 7644, section 3.4.2.2, by recursive descent: {@code or} of {@code and} of what may be
 * negated. {@code not} stands before a parenthesis, as there. Used once, by one thread.
 */
final class RuleParser {

    private final String text;
    private final List<Token> tokens;
    private final Comparisons comparisons;
    private final Set<String> collections = new LinkedHashSet<>();
    private int next;
    private int depth;

    RuleParser(String text) {
        this.text = text;
        this.tokens = Tokens.of(text);
        this.comparisons = new Comparisons(text, collections);
    }

    Condition parse() {
        Condition whole = or(null);
        if (peek().kind() != Token.Kind.END) {
            throw error(peek(), "expected 'and', 'or' or the end, found " + peek().shown() + ".");
        }
        return whole;
    }

    Set<String> collections() {
        return Set.copyOf(collections);
    }

    /** @param complex within the brackets of which attribute; null outside */
    private Condition or(@Nullable String complex) {
        List<Condition> parts = new ArrayList<>(List.of(and(complex)));
        while (peek().isWord("or")) {
            take();
            parts.add(and(complex));
        }
        return parts.size() == 1 ? parts.get(0) : new AnyOf(parts);
    }

    private Condition and(@Nullable String complex) {
        List<Condition> parts = new ArrayList<>(List.of(part(complex)));
        while (peek().isWord("and")) {
            take();
            parts.add(part(complex));
        }
        return parts.size() == 1 ? parts.get(0) : new AllOf(parts);
    }

    private Condition part(@Nullable String complex) {
        Token token = peek();
        if (token.isWord("not")) {
            take();
            if (peek().kind() != Token.Kind.OPEN) {
                throw error(peek(), "expected '(' after 'not', found " + peek().shown() + ".");
            }
            return new Not(nested(complex, Token.Kind.CLOSE, "')'"));
        }
        if (token.kind() == Token.Kind.OPEN) {
            return nested(complex, Token.Kind.CLOSE, "')'");
        }
        if (token.kind() != Token.Kind.WORD) {
            throw error(token, "expected an attribute, 'not' or '(', found " + token.shown() + ".");
        }
        return comparison(complex);
    }

    private Condition nested(@Nullable String complex, Token.Kind close, String closing) {
        Token open = take();
        if (++depth > Rule.DEEPEST) {
            throw error(open, "a rule nests at most " + Rule.DEEPEST + " deep; put a part of it into a collection of "
                    + "its own.");
        }
        Condition inner = or(complex);
        if (peek().kind() != close) {
            throw error(peek(), "expected 'and', 'or' or " + closing + ", found " + peek().shown() + ".");
        }
        take();
        depth--;
        return inner;
    }

    private Condition comparison(@Nullable String complex) {
        Token name = take();
        int dot = name.text().indexOf('.');
        String before = dot < 0 ? "" : name.text().substring(0, dot);
        Attribute outer = complex == null && dot > 0 ? Attribute.of(null, before) : null;
        if (outer != null && outer.type() == Attribute.Type.COMPLEX) {
            return shorthand(outer, new Token(Token.Kind.WORD, name.text().substring(dot + 1), name.at() + dot + 1));
        }
        Attribute attribute = known(complex, name);
        if (attribute.type() != Attribute.Type.COMPLEX) {
            return compare(attribute, name);
        }
        if (peek().isWord("pr")) {
            take();
            return new HasElement(attribute.name());
        }
        if (peek().kind() != Token.Kind.OPEN_BRACKET) {
            throw error(peek(), "expected '[' or 'pr' after '" + name.text() + "', found " + peek().shown()
                    + "; write " + attribute.name() + "[…].");
        }
        Condition within = nested(attribute.name(), Token.Kind.CLOSE_BRACKET, "']'");
        return new SomeElement(attribute.name(), within, writtenFrom(name));
    }

    /** {@code software.name eq "X"}: the element is any one; {@code ne} says that it is none. */
    private Condition shorthand(Attribute complex, Token name) {
        Attribute attribute = known(complex.name(), name);
        Condition within = compare(attribute, name);
        return within instanceof Not not ? new Not(new SomeElement(complex.name(), not.part(), words(complex, not.part())))
                : new SomeElement(complex.name(), within, words(complex, within));
    }

    private static String words(Attribute complex, Condition within) {
        return within instanceof ValueCondition value ? complex.name() + "." + value.words() : complex.name();
    }

    /** The text from this token up to the one that was taken last. */
    private String writtenFrom(Token first) {
        return text.substring(first.at(), tokens.get(next).at()).strip();
    }

    private Attribute known(@Nullable String complex, Token name) {
        Attribute attribute = Attribute.of(complex, name.text());
        if (attribute != null) {
            return attribute;
        }
        String nearest = Attribute.nearest(complex, name.text());
        throw error(name, "'" + name.text() + "' is no attribute" + (complex == null ? "" : " of " + complex)
                + (nearest == null ? "." : "; did you mean '" + nearest + "'?"));
    }

    private Condition compare(Attribute attribute, Token name) {
        Token word = take();
        if (word.isWord("pr")) {
            if (attribute.type() == Attribute.Type.COLLECTION) {
                throw error(word, "'collection' takes only eq and ne.");
            }
            return new HasValue(attribute.name());
        }
        Operator operator = word.kind() == Token.Kind.WORD ? Operator.of(word.text()) : null;
        if (operator == null) {
            throw error(word, "expected eq, ne, co, sw, ew, gt, ge, lt, le or pr after '" + name.text() + "', found "
                    + word.shown() + ".");
        }
        Token literal = take();
        if (literal.kind() != Token.Kind.STRING && literal.kind() != Token.Kind.NUMBER) {
            throw error(literal, "expected a text in double quotes or a number after '"
                    + word.text().toLowerCase(Locale.ROOT) + "', found " + literal.shown() + ".");
        }
        return comparisons.of(attribute, operator, word, literal);
    }

    private Token peek() {
        return tokens.get(next);
    }

    /** The end is never passed. */
    private Token take() {
        Token token = tokens.get(next);
        if (token.kind() != Token.Kind.END) {
            next++;
        }
        return token;
    }

    private RuleException error(Token token, String sentence) {
        return Tokens.at(text, token.at(), sentence);
    }
}
