package rivo.core.rule;

import java.util.List;

/** A node of a compiled rule. Immutable and compared by value; safe for any thread. */
public sealed interface Condition permits AllOf, AnyOf, Not, SomeElement, HasElement, ValueCondition {

    boolean holds(Subject subject);

    /** The same question asked of all subjects at once. */
    <S> S over(Algebra<S> algebra);

    /** Whether it may be true at one instant and not at another, of a subject that is the same: it names a period before {@code asOf}. */
    boolean looksAtTime();

    /** Adds what each of its clauses says of the subject, in the order in which they are written. */
    void explain(Subject subject, List<Clause> clauses);
}
