package rivo.core.rule;

/**
 * A text against the values of an attribute, without regard to case.
 *
 * @param dn whether the values are distinguished names
 * @param folded what is looked for, folded already
 */
record TextComparison(String attribute, Operator operator, boolean dn, String folded) implements Condition {

    static TextComparison of(String attribute, Operator operator, boolean dn, String text) {
        return new TextComparison(attribute, operator, dn, dn ? Folding.foldDn(text) : Folding.fold(text));
    }

    @Override
    public boolean holds(Subject subject) {
        for (String value : subject.values(attribute)) {
            if (satisfies(dn ? Folding.foldDn(value) : Folding.fold(value))) {
                return true;
            }
        }
        return false;
    }

    private boolean satisfies(String value) {
        return switch (operator) {
            case CO -> value.contains(folded);
            case SW -> value.startsWith(folded);
            case EW -> value.endsWith(folded);
            case EQ, NE, GT, GE, LT, LE -> operator.accepts(Folding.compare(value, folded));
        };
    }
}
