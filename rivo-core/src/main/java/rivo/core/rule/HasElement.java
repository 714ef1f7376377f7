package rivo.core.rule;

import java.util.List;

/** {@code pr} on a complex attribute: there is an element. */
record HasElement(String attribute) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        return !subject.elements(attribute).isEmpty();
    }

    @Override
    public <S> S over(Algebra<S> algebra) {
        return algebra.havingAnyElement(attribute);
    }

    @Override
    public boolean looksAtTime() {
        return false;
    }

    @Override
    public void explain(Subject subject, List<Clause> clauses) {
        clauses.add(new Clause(attribute + " pr", holds(subject), List.of()));
    }
}
