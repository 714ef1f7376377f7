package rivo.core.rule;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Version;

/** A version against the values of an attribute, in the order of versions. */
record VersionComparison(String attribute, Operator operator, Version version) implements ValueCondition {

    @Override
    public @Nullable Object prepare(String value) {
        return value.isBlank() || value.length() > Version.LONGEST ? null : Version.of(value);
    }

    @Override
    public Form form() {
        return Form.VERSION;
    }

    @Override
    public boolean acceptsPrepared(Object prepared, Instant asOf) {
        return operator.accepts(((Version) prepared).compareTo(version));
    }

    @Override
    public String words() {
        return Attribute.written(attribute) + " " + operator.word() + " \"" + version + "\"";
    }
}
