package rivo.core.rule;

import java.math.BigDecimal;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A number against the values of an attribute. A value that is no number satisfies nothing. */
record NumberComparison(String attribute, Operator operator, BigDecimal number) implements ValueCondition {

    @Override
    public @Nullable Object prepare(String value) {
        try {
            return new BigDecimal(value);
        } catch (NumberFormatException e) {
            // Reported as something else than a number.
            return null;
        }
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public boolean acceptsPrepared(Object prepared, Instant asOf) {
        return operator.accepts(((BigDecimal) prepared).compareTo(number));
    }

    @Override
    public String words() {
        return Attribute.written(attribute) + " " + operator.word() + " " + number;
    }
}
