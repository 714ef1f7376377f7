package rivo.core.rule;

import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/** Whatever is typed, the parser answers: with a rule, or with its own error that says where. */
class RuleParserProperties {

    @Property(tries = 3000)
    void anyTextIsARuleOrAnError(@ForAll String text) {
        parse(text);
    }

    @Property(tries = 5000)
    void anyPiecesOfRulesAreARuleOrAnError(@ForAll("pieces") List<String> pieces) {
        parse(String.join(" ", pieces));
        parse(String.join("", pieces));
    }

    @Provide
    Arbitrary<List<String>> pieces() {
        return Arbitraries.of("arch", "eq", "ne", "\"x64\"", "(", ")", "not", "and", "or", "[", "]", "software", "name",
                "people", ".", "ramGiB", "8", "-", "1e99", "pr", "lastSeen", "\"-P14D\"", "\"-P1Y\"", "collection", "null",
                "os.version", "ge", "\"", "\\", "x.a", "\u0130", "\uD83D").list().ofMaxSize(14);
    }

    @Property(tries = 50)
    void deepAndLongOnesEndToo(@ForAll("depths") int depth) {
        parse("(".repeat(depth) + "arch pr" + ")".repeat(depth));
        parse("not (".repeat(depth) + "arch pr" + ")".repeat(depth));
        parse("arch pr and ".repeat(depth) + "arch pr");
    }

    @Provide
    Arbitrary<Integer> depths() {
        return Arbitraries.integers().between(0, 3000);
    }

    private static void parse(String text) {
        try {
            Rule rule = Rule.parse(text);
            rule.holds(new Facts());
            rule.explain(new Facts());
        } catch (RuleException e) {
            if (e.line() < 1 || e.column() < 1 || e.getMessage() == null) {
                throw new AssertionError("an error says where: " + text, e);
            }
        }
    }
}
