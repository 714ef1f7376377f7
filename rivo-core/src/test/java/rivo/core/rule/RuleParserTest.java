package rivo.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Whatever is typed, the parser answers: with a rule, or with its own error that says where. */
class RuleParserTest {

    private static final List<String> PIECES = List.of("arch", "eq", "ne", "\"x64\"", "(", ")", "not", "and", "or", "[", "]", "software", "name",
            "people", ".", "ramGiB", "8", "-", "1e99", "pr", "lastSeen", "\"-P14D\"", "\"-P1Y\"", "collection", "null",
            "os.version", "ge", "\"", "\\", "x.a", "\u0130", "\uD83D");
    /** Those at which readers of text err: ends of ranges, control characters, halves of pairs. */
    private static final int[] EDGES = {0, 1, 9, 10, 13, 32, 34, 40, 41, 92, 127, 128, 0xA0, 0xFF, 0x130, 0x2028, 0xD7FF, 0xD800, 0xDBFF, 0xDC00,
        0xDFFF, 0xE000, 0xFEFF, 0xFFFE, 0xFFFF};

    private final long seed = System.nanoTime();
    private final Random random = new Random(seed);

    @Test
    void anyTextIsARuleOrAnError() {
        parse("");
        for (int i = 0; i < 3000; i++) {
            StringBuilder text = new StringBuilder();
            for (int n = random.nextInt(60); n > 0; n--) {
                text.append((char) switch (random.nextInt(3)) {
                    case 0 -> EDGES[random.nextInt(EDGES.length)];
                    case 1 -> ' ' + random.nextInt(95);
                    default -> random.nextInt(0x10000);
                });
            }
            parse(text.toString());
        }
    }

    @Test
    void anyPiecesOfRulesAreARuleOrAnError() {
        for (int i = 0; i < 5000; i++) {
            List<String> pieces = new ArrayList<>();
            for (int n = random.nextInt(15); n > 0; n--) {
                pieces.add(PIECES.get(random.nextInt(PIECES.size())));
            }
            parse(String.join(" ", pieces));
            parse(String.join("", pieces));
        }
    }

    @Test
    void deepAndLongOnesEndToo() {
        for (int depth : new int[] {0, 1, 2, 49, 50, 51, 100, 1000, random.nextInt(3000), 3000}) {
            parse("(".repeat(depth) + "arch pr" + ")".repeat(depth));
            parse("not (".repeat(depth) + "arch pr" + ")".repeat(depth));
            parse("arch pr and ".repeat(depth) + "arch pr");
        }
    }

    private void parse(String text) {
        try {
            Rule rule = Rule.parse(text);
            rule.holds(new Facts());
            rule.explain(new Facts());
        } catch (RuleException e) {
            if (e.line() < 1 || e.column() < 1 || e.getMessage() == null) {
                throw new AssertionError("an error says where: " + text, e);
            }
        } catch (RuntimeException | StackOverflowError e) {
            throw new AssertionError("seed " + seed + ": " + text, e);
        }
    }
}
