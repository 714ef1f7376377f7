package rivo.core.rule;

/** {@code not}, and {@code ne}, which is always the negation of {@code eq}. */
record Not(Condition part) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        return !part.holds(subject);
    }
}
