package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rivo.core.rule.Clause;
import rivo.core.rule.Condition;
import rivo.core.rule.Rule;

/**
 * Rules that somebody is still writing, against the devices of an estate. Unlike those of {@link Audiences#devicesWhere} their answers are not
 * kept as sets, so that trying costs no memory afterwards. Collections that a rule names have to be known. Immutable; safe for any thread.
 */
public final class TriedRules {

    private final RuleSets rules;

    TriedRules(RuleSets rules) {
        this.rules = rules;
    }

    /** The devices that satisfy a rule. */
    public DeviceSet satisfying(Rule rule) {
        return satisfying(rule.condition());
    }

    /** The devices that satisfy a part of a rule. */
    public DeviceSet satisfying(Condition condition) {
        return new DeviceSet(condition.over(rules.algebra()));
    }

    /** Whether the device at this position satisfies a part of a rule. */
    public boolean holds(Condition condition, int device) {
        return condition.holds(rules.subject(device));
    }

    /** What each clause of a part of a rule says of the device at this position. */
    public List<Clause> clauses(Condition condition, int device) {
        List<Clause> clauses = new ArrayList<>();
        condition.explain(rules.subject(device), clauses);
        return clauses;
    }

    /**
     * The values that the fleet has of an attribute of the rule language, each with about how many devices have it. Costs a step for each value.
     *
     * @param attribute in lower case; of a complex one a part, such as {@code software.name}
     */
    public Map<String, Integer> values(String attribute) {
        return rules.algebra().values(attribute);
    }

    /** The names of all facts that some device reports, in lower case. */
    public Set<String> reportedFacts() {
        return rules.algebra().facts();
    }
}
