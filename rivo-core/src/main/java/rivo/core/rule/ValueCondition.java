package rivo.core.rule;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A condition on the values of one simple attribute: true when any of them satisfies it. */
public sealed interface ValueCondition extends Condition
        permits TextComparison, VersionComparison, NumberComparison, InstantComparison, HasValue {

    /** The attribute's name in lower case. */
    String attribute();

    /**
     * A value in the form in which it is compared: the same for all conditions of one {@link #form}, so that it can be
     * kept. Null when the value is nothing that could be compared.
     */
    @Nullable Object prepare(String value);

    /** The forms in which values are compared. */
    enum Form {
        AS_IT_IS, TEXT, DN, VERSION, NUMBER, INSTANT
    }

    /** What {@link #prepare} depends on. */
    Form form();

    /** Whether a prepared value satisfies it. */
    boolean acceptsPrepared(Object prepared, Instant asOf);

    /** Whether one value satisfies it. */
    default boolean accepts(String value, Instant asOf) {
        Object prepared = prepare(value);
        return prepared != null && acceptsPrepared(prepared, asOf);
    }

    /** As it would be written. */
    String words();

    @Override
    default boolean holds(Subject subject) {
        List<Object> values = subject.prepared(this);
        for (int i = 0; i < values.size(); i++) {
            if (acceptsPrepared(values.get(i), subject.asOf())) {
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
    default boolean looksAtTime() {
        return false;
    }

    @Override
    default void explain(Subject subject, List<Clause> clauses) {
        clauses.add(new Clause(words(), holds(subject), subject.values(attribute())));
    }
}
