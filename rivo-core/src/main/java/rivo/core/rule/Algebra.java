package rivo.core.rule;

/**
 * Sets of subjects, whatever they are made of: what a rule needs to be asked of all subjects at once.
 *
 * @param <S> a set of subjects
 */
public interface Algebra<S> {

    S and(S one, S other);

    S or(S one, S other);

    /** All subjects but these. */
    S not(S set);

    /** The subjects that have a value which satisfies the condition. */
    S having(ValueCondition condition);

    /** The subjects that have an element of this complex attribute which satisfies the condition. */
    S havingElement(String attribute, Condition within);

    /** The subjects that have any element of this complex attribute. */
    S havingAnyElement(String attribute);
}
