package rivo.core.rule;

import rivo.core.estate.Version;

/** A version against the values of an attribute, in the order of versions. */
record VersionComparison(String attribute, Operator operator, Version version) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        for (String value : subject.values(attribute)) {
            if (!value.isBlank() && value.length() <= Version.LONGEST
                    && operator.accepts(Version.of(value).compareTo(version))) {
                return true;
            }
        }
        return false;
    }
}
