package rivo.core.rule;

/** {@code pr} on a complex attribute: there is an element. */
record HasElement(String attribute) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        return !subject.elements(attribute).isEmpty();
    }
}
