package rivo.core.rule;

/** A node of a compiled rule. Immutable; safe for any thread. */
interface Condition {

    boolean holds(Subject subject);
}
