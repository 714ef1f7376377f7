package rivo.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * A rule over the facts of one device, ready to be asked. Immutable; safe for any thread.
 *
 * <p>Two rules are equal when their texts are.
 */
public final class Rule {

    /** The longest text taken, in characters. */
    public static final int LONGEST = 8192;
    /** How deep parentheses and brackets may nest. */
    public static final int DEEPEST = 50;

    private final String text;
    private final Condition condition;
    private final Set<String> collections;

    private Rule(String text, Condition condition, Set<String> collections) {
        this.text = text;
        this.condition = condition;
        this.collections = Set.copyOf(collections);
    }

    /**
     * Compiles a rule. Costs one pass over the text.
     *
     * @throws RuleException when it does not parse, names an unknown attribute, compares what cannot be compared, is
     *     longer than {@link #LONGEST}, or nests deeper than {@link #DEEPEST}
     */
    public static Rule parse(String text) {
        if (text.length() > LONGEST) {
            throw new RuleException(1, 1, "A rule has at most " + LONGEST + " characters; this one has "
                    + text.length() + ". Put a part of it into a collection of its own.");
        }
        RuleParser parser = new RuleParser(text);
        Condition condition = parser.parse();
        return new Rule(text, condition, parser.collections());
    }

    /** Whether the subject satisfies it. */
    public boolean holds(Subject subject) {
        return condition.holds(subject);
    }

    /** The same, compiled: for whoever asks all subjects at once. */
    public Condition condition() {
        return condition;
    }

    /** Whether it may be true of a device at one instant and not at another; the collections that it names may too. */
    public boolean looksAtTime() {
        return condition.looksAtTime();
    }

    /** What each clause of the rule says of the subject, in the order in which they are written. */
    public List<Clause> explain(Subject subject) {
        List<Clause> clauses = new ArrayList<>();
        condition.explain(subject, clauses);
        return List.copyOf(clauses);
    }

    /** The names of the collections that it asks about, as written. */
    public Set<String> collections() {
        return collections;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Rule rule && text.equals(rule.text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    /** The text as it was written. */
    @Override
    public String toString() {
        return text;
    }
}
