package rivo.core.rule;

import java.time.Instant;

/**
 * A text against the values of an attribute, without regard to case.
 *
 * @param dn whether the values are distinguished names
 * @param folded what is looked for, folded already
 * @param literal the same as it was written
 */
record TextComparison(String attribute, Operator operator, boolean dn, String folded, String literal)
        implements ValueCondition {

    static TextComparison of(String attribute, Operator operator, boolean dn, String text) {
        return new TextComparison(attribute, operator, dn, dn ? Folding.foldDn(text) : Folding.fold(text), text);
    }

    /** Whether it asks for one text, and no name of an entry. */
    boolean isEquality() {
        return operator == Operator.EQ && !dn;
    }

    @Override
    public Object prepare(String value) {
        return dn ? Folding.foldDn(value) : Folding.fold(value);
    }

    @Override
    public Form form() {
        return dn ? Form.DN : Form.TEXT;
    }

    @Override
    public boolean acceptsPrepared(Object prepared, Instant asOf) {
        return satisfies((String) prepared);
    }

    private boolean satisfies(String value) {
        return switch (operator) {
            case CO -> value.contains(folded);
            case SW -> value.startsWith(folded);
            case EW -> value.endsWith(folded);
            case EQ -> value.equals(folded);
            case NE, GT, GE, LT, LE -> operator.accepts(Folding.compare(value, folded));
        };
    }

    @Override
    public String words() {
        return Attribute.written(attribute) + " " + operator.word() + " \"" + literal.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }
}
