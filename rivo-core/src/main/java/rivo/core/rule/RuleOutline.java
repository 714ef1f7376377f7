package rivo.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A rule as people edit it: clauses, and groups of them. Says the same as the rule that it was made of. Immutable; safe for any thread.
 *
 * @param kind what sort of line it is
 * @param attribute of a clause, as it is written; of {@link Kind#SOME} and {@link Kind#HAS} the complex attribute; else empty
 * @param operator of a clause, {@code eq} to {@code le} or {@code pr}; else empty
 * @param value of a clause, without quotes; empty for {@code pr}
 * @param parts what stands in it
 * @param condition the same, compiled
 */
public record RuleOutline(Kind kind, String attribute, String operator, String value, List<RuleOutline> parts, Condition condition) {

    /** The sorts of lines. */
    public enum Kind {
        /** Every part holds. */
        ALL,
        /** At least one part holds. */
        ANY,
        /** No part holds. */
        NONE,
        /** One and the same element of a complex attribute satisfies the part in it. */
        SOME,
        /** There is an element of a complex attribute. */
        HAS,
        /** One comparison. */
        CLAUSE;

        /** The word in the API. */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public RuleOutline {
        parts = List.copyOf(parts);
    }

    public static RuleOutline of(Rule rule) {
        return of(rule.condition());
    }

    private static RuleOutline of(Condition condition) {
        if (condition instanceof AllOf all) {
            return group(Kind.ALL, all.parts(), condition);
        }
        if (condition instanceof AnyOf any) {
            return group(Kind.ANY, any.parts(), condition);
        }
        if (condition instanceof Not not) {
            return not(not);
        }
        if (condition instanceof SomeElement some) {
            return new RuleOutline(Kind.SOME, some.attribute(), "", "", List.of(of(some.within())), condition);
        }
        if (condition instanceof HasElement has) {
            return new RuleOutline(Kind.HAS, has.attribute(), "", "", List.of(), condition);
        }
        return clause((ValueCondition) condition, condition);
    }

    /** {@code ne} is a clause of its own; what else is negated stands below a line that says so. */
    private static RuleOutline not(Not not) {
        if (not.part() instanceof ValueCondition negated) {
            RuleOutline equal = clause(negated, not);
            if (equal.operator().equals("eq")) {
                return new RuleOutline(Kind.CLAUSE, equal.attribute(), "ne", equal.value(), List.of(), not);
            }
        }
        return not.part() instanceof AnyOf any ? group(Kind.NONE, any.parts(), not)
                : new RuleOutline(Kind.NONE, "", "", "", List.of(of(not.part())), not);
    }

    private static RuleOutline group(Kind kind, List<Condition> parts, Condition condition) {
        List<RuleOutline> lines = new ArrayList<>();
        parts.forEach(part -> lines.add(of(part)));
        return new RuleOutline(kind, "", "", "", lines, condition);
    }

    private static RuleOutline clause(ValueCondition condition, Condition whole) {
        List<Token> tokens = Tokens.of(condition.words());
        return new RuleOutline(Kind.CLAUSE, tokens.get(0).text(), tokens.get(1).text(), tokens.size() > 3 ? tokens.get(2).text() : "", List.of(), whole);
    }
}
