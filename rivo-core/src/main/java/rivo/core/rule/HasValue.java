package rivo.core.rule;

/** {@code pr}: there is a value that is not the empty string. */
record HasValue(String attribute) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        for (String value : subject.values(attribute)) {
            if (!value.isEmpty()) {
                return true;
            }
        }
        return false;
    }
}
