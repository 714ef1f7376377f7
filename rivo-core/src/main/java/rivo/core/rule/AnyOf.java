package rivo.core.rule;

import java.util.List;

/** {@code or}: some part holds. */
record AnyOf(List<Condition> parts) implements Condition {

    AnyOf {
        parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(Subject subject) {
        for (int i = 0; i < parts.size(); i++) {
            if (parts.get(i).holds(subject)) {
                return true;
            }
        }
        return false;
    }

    @Override
    public <S> S over(Algebra<S> algebra) {
        return parts.stream().map(part -> part.over(algebra)).reduce(algebra::or).orElseThrow();
    }

    @Override
    public boolean looksAtTime() {
        return parts.stream().anyMatch(Condition::looksAtTime);
    }

    @Override
    public void explain(Subject subject, List<Clause> clauses) {
        parts.forEach(part -> part.explain(subject, clauses));
    }
}
