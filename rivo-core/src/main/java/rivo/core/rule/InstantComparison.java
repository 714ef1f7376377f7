package rivo.core.rule;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;

/** An instant against the values of an attribute. A value that is no instant satisfies nothing. */
record InstantComparison(String attribute, Operator operator, Moment moment, String literal) implements ValueCondition {

    @Override
    public boolean accepts(String value, Instant asOf) {
        try {
            return operator.accepts(OffsetDateTime.parse(value).toInstant().compareTo(moment.at(asOf)));
        } catch (DateTimeParseException e) {
            // Reported as something else than an instant.
            return false;
        }
    }

    @Override
    public String words() {
        return attribute + " " + operator.word() + " " + literal;
    }
}
