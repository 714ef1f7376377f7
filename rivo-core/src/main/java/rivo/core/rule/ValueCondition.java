package rivo.core.rule;

import java.time.Instant;
import java.util.List;

/** A condition on the values of one simple attribute: true when any of them satisfies it. */
public sealed interface ValueCondition extends Condition
        permits TextComparison, VersionComparison, NumberComparison, InstantComparison, HasValue {

    /** The attribute's name in lower case. */
    String attribute();

    /** Whether one value satisfies it. */
    boolean accepts(String value, Instant asOf);

    /** As it would be written. */
    String words();

    @Override
    default boolean holds(Subject subject) {
        List<String> values = subject.values(attribute());
        for (int i = 0; i < values.size(); i++) {
            if (accepts(values.get(i), subject.asOf())) {
                return true;
            }
        }
        return false;
    }

    @Override
    default <S> S over(Algebra<S> algebra) {
        return algebra.having(this);
    }

    @Override
    default void explain(Subject subject, List<Clause> clauses) {
        clauses.add(new Clause(words(), holds(subject), subject.values(attribute())));
    }
}
