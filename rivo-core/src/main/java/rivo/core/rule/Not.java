package rivo.core.rule;

import java.util.List;

/** {@code not}, and {@code ne}: the part does not hold. */
record Not(Condition part) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        return !part.holds(subject);
    }

    @Override
    public <S> S over(Algebra<S> algebra) {
        return algebra.not(part.over(algebra));
    }

    @Override
    public boolean looksAtTime() {
        return part.looksAtTime();
    }

    @Override
    public void explain(Subject subject, List<Clause> clauses) {
        part.explain(subject, clauses);
    }
}
