package rivo.core.rule;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import org.jspecify.annotations.Nullable;

/** An instant against the values of an attribute. A value that is no instant satisfies nothing. */
record InstantComparison(String attribute, Operator operator, Moment moment, String literal) implements ValueCondition {

    @Override
    public @Nullable Object prepare(String value) {
        try {
            return OffsetDateTime.parse(value).toInstant();
        } catch (DateTimeParseException e) {
            // Reported as something else than an instant.
            return null;
        }
    }

    @Override
    public Form form() {
        return Form.INSTANT;
    }

    @Override
    public boolean acceptsPrepared(Object prepared, Instant asOf) {
        return operator.accepts(((Instant) prepared).compareTo(moment.at(asOf)));
    }

    @Override
    public boolean looksAtTime() {
        return moment.fixed() == null;
    }

    @Override
    public String words() {
        return Attribute.written(attribute) + " " + operator.word() + " " + literal;
    }
}
