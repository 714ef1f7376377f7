package rivo.core.rule;

import java.math.BigDecimal;
import java.util.Set;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Version;

/** Makes the condition for an attribute, an operator and a literal, or says why they do not go together. */
final class Comparisons {

    private final String text;
    private final Set<String> collections;

    /** @param collections filled with the names of the collections that are asked about */
    Comparisons(String text, Set<String> collections) {
        this.text = text;
        this.collections = collections;
    }

    Condition of(Attribute attribute, Operator operator, Token word, Token literal) {
        if (operator == Operator.NE) {
            return new Not(of(attribute, Operator.EQ, word, literal));
        }
        return switch (attribute.type()) {
            case TEXT -> text(attribute, operator, literal, false);
            case DN -> {
                refuse(operator.orders(), word, "DNs have no order; use eq, ne, co, sw or ew.");
                yield text(attribute, operator, literal, true);
            }
            case COLLECTION -> {
                refuse(operator != Operator.EQ, word, "'collection' takes only eq and ne.");
                Condition condition = text(attribute, operator, literal, false);
                collections.add(literal.text());
                yield condition;
            }
            case VERSION -> version(attribute, operator, word, literal);
            case NUMBER -> number(attribute, operator, word, literal);
            case INSTANT -> instant(attribute, operator, word, literal);
            case COMPLEX -> throw new IllegalStateException("a complex attribute is not compared");
        };
    }

    private Condition text(Attribute attribute, Operator operator, Token literal, boolean dn) {
        refuse(literal.kind() != Token.Kind.STRING, literal, "'" + attribute.name()
                + "' is a text; put double quotes around " + literal.shown() + ".");
        return TextComparison.of(attribute.name(), operator, dn, literal.text());
    }

    private Condition version(Attribute attribute, Operator operator, Token word, Token literal) {
        refuse(operator.looksInside(), word, "versions are compared by eq, ne, gt, ge, lt and le.");
        refuse(literal.kind() != Token.Kind.STRING, literal, "put a version in double quotes, such as \"4.2.0\".");
        try {
            return new VersionComparison(attribute.name(), operator, Version.of(literal.text()));
        } catch (RefusedException e) {
            throw Tokens.at(text, literal.at(), String.valueOf(e.getMessage()));
        }
    }

    private Condition number(Attribute attribute, Operator operator, Token word, Token literal) {
        refuse(operator.looksInside(), word, "numbers are compared by eq, ne, gt, ge, lt and le.");
        refuse(literal.kind() != Token.Kind.NUMBER, literal, "'" + attribute.name()
                + "' is a number; write it without quotes, such as 8.");
        return new NumberComparison(attribute.name(), operator, new BigDecimal(literal.text()));
    }

    private Condition instant(Attribute attribute, Operator operator, Token word, Token literal) {
        refuse(operator.looksInside(), word, "instants are compared by eq, ne, gt, ge, lt and le.");
        Moment moment = literal.kind() == Token.Kind.STRING ? Moment.of(literal.text()) : null;
        if (moment == null) {
            throw Tokens.at(text, literal.at(), literal.shown() + " is no instant; write \"2026-11-20T00:00:00Z\", or a "
                    + "period before now in weeks, days, hours, minutes and seconds, such as \"-P14D\".");
        }
        return new InstantComparison(attribute.name(), operator, moment, "\"" + literal.text() + "\"");
    }

    private void refuse(boolean wrong, Token token, String sentence) {
        if (wrong) {
            throw Tokens.at(text, token.at(), sentence);
        }
    }
}
