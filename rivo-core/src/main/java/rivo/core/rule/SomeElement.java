package rivo.core.rule;

/** {@code software[…]}: one and the same element satisfies all that stands in the brackets. */
record SomeElement(String attribute, Condition within) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        for (Subject element : subject.elements(attribute)) {
            if (within.holds(element)) {
                return true;
            }
        }
        return false;
    }
}
