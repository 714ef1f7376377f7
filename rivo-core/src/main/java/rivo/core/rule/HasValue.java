package rivo.core.rule;

import java.time.Instant;

/** {@code pr}: there is a value that is not the empty string. */
record HasValue(String attribute) implements ValueCondition {

    @Override
    public boolean accepts(String value, Instant asOf) {
        return !value.isEmpty();
    }

    @Override
    public String words() {
        return attribute + " pr";
    }
}
