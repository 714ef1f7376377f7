package rivo.core.rule;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;

/** An instant against the values of an attribute. A value that is no instant satisfies nothing. */
record InstantComparison(String attribute, Operator operator, Moment moment) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        Instant limit = moment.at(subject.asOf());
        for (String value : subject.values(attribute)) {
            try {
                if (operator.accepts(OffsetDateTime.parse(value).toInstant().compareTo(limit))) {
                    return true;
                }
            } catch (DateTimeParseException e) {
                // Reported as something else than an instant.
                continue;
            }
        }
        return false;
    }
}
