package rivo.core.rule;

import java.util.List;

/** {@code software[…]}: one and the same element satisfies all that stands in the brackets. */
record SomeElement(String attribute, Condition within, String words) implements Condition {

    @Override
    public boolean holds(Subject subject) {
        if (within instanceof TextComparison text && text.isEquality()) {
            return subject.foldedInElements(attribute, text.attribute()).contains(text.folded());
        }
        for (Subject element : subject.elements(attribute)) {
            if (within.holds(element)) {
                return true;
            }
        }
        return false;
    }

    @Override
    public <S> S over(Algebra<S> algebra) {
        return algebra.havingElement(attribute, within);
    }

    @Override
    public boolean looksAtTime() {
        return within.looksAtTime();
    }

    @Override
    public void explain(Subject subject, List<Clause> clauses) {
        List<String> seen = subject.elements(attribute).stream().filter(within::holds).map(Subject::toString).toList();
        clauses.add(new Clause(words, !seen.isEmpty(), seen));
    }
}
