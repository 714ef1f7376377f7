package rivo.core.rule;

import java.math.BigDecimal;
import java.time.Instant;

/** A number against the values of an attribute. A value that is no number satisfies nothing. */
record NumberComparison(String attribute, Operator operator, BigDecimal number) implements ValueCondition {

    @Override
    public boolean accepts(String value, Instant asOf) {
        try {
            return operator.accepts(new BigDecimal(value).compareTo(number));
        } catch (NumberFormatException e) {
            // Reported as something else than a number.
            return false;
        }
    }

    @Override
    public String words() {
        return attribute + " " + operator.word() + " " + number;
    }
}
