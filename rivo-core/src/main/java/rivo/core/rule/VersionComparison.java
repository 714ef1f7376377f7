package rivo.core.rule;

import java.time.Instant;
import rivo.core.estate.Version;

/** A version against the values of an attribute, in the order of versions. */
record VersionComparison(String attribute, Operator operator, Version version) implements ValueCondition {

    @Override
    public boolean accepts(String value, Instant asOf) {
        return !value.isBlank() && value.length() <= Version.LONGEST
                && operator.accepts(Version.of(value).compareTo(version));
    }

    @Override
    public String words() {
        return attribute + " " + operator.word() + " \"" + version + "\"";
    }
}
