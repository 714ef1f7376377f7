package rivo.core.rule;

import java.math.BigDecimal;

/** A number against the values of an attribute. A value that is no number satisfies nothing. */
record NumberComparison(String attribute, Operator operator, BigDecimal number) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        for (String value : subject.values(attribute)) {
            try {
                if (operator.accepts(new BigDecimal(value).compareTo(number))) {
                    return true;
                }
            } catch (NumberFormatException e) {
                // Reported as something else than a number.
                continue;
            }
        }
        return false;
    }
}
