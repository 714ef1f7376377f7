package rivo.core.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is wrong with a rule, and where. */
class RuleErrorsTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', value = {
        "arhc eq \"x64\"|1|'arhc' is no attribute; did you mean 'arch'?",
        "arch eq \"x64\" and os.famly eq \"windows\"|19|did you mean 'os.family'?",
        "ramGB ge 8|1|did you mean 'ramGiB'?",
        "software[nam eq \"X\"]|10|'nam' is no attribute of software; did you mean 'name'?",
        "software.nme eq \"X\"|10|did you mean 'name'?",
        "zzzzzzzz eq 1|1|'zzzzzzzz' is no attribute.",
        "arch is \"x64\"|6|expected eq, ne, co, sw, ew, gt, ge, lt, le or pr after 'arch', found 'is'.",
        "arch eq x64|9|expected a text in double quotes or a number after 'eq', found 'x64'.",
        "arch eq true|9|found 'true'",
        "arch eq null|9|found 'null'",
        "arch eq|8|found the end of the rule",
        "arch eq 64|9|'arch' is a text; put double quotes around '64'.",
        "ramGiB ge \"8\"|11|write it without quotes, such as 8.",
        "ramGiB co 8|8|numbers are compared by eq, ne, gt, ge, lt and le.",
        "os.version sw \"10\"|12|versions are compared by",
        "os.version ge 10|15|put a version in double quotes",
        "os.version ge \"\"|15|A version has 1 to 200 characters",
        "lastSeen gt \"-P1M\"|13|is no instant",
        "lastSeen gt \"-P1Y\"|13|weeks, days, hours, minutes and seconds",
        "lastSeen gt \"P14D\"|13|is no instant",
        "lastSeen gt \"-P\"|13|is no instant",
        "lastSeen gt \"-P1DT\"|13|is no instant",
        "lastSeen gt \"2026-11-23\"|13|is no instant",
        "ou gt \"dc=x\"|4|DNs have no order",
        "collection co \"Lab\"|12|'collection' takes only eq and ne.",
        "collection pr|12|'collection' takes only eq and ne.",
        "not arch eq \"x64\"|5|expected '(' after 'not', found 'arch'.",
        "(arch eq \"x64\"|15|expected 'and', 'or' or ')', found the end of the rule.",
        "software[name eq \"X\")|21|expected 'and', 'or' or ']', found ')'.",
        "software eq \"X\"|10|expected '[' or 'pr' after 'software', found 'eq'; write software[…].",
        "software[software[name pr]]|10|'software' is no attribute of software",
        "arch eq \"x64\" arch eq \"x64\"|15|expected 'and', 'or' or the end, found 'arch'.",
        "arch eq \"x64|9|This text has no end",
        "arch eq 'x64'|9|put texts in double quotes",
        "arch eq \"a\\q\"|11|escapes nothing",
        "arch eq \"a\\u12\"|11|four hexadecimal digits",
        "ramGiB ge 08|11|'08' is no number",
        "ramGiB ge 1-2|11|is no number",
        "and|1|'and' is no attribute",
        "()|2|expected an attribute, 'not' or '(', found ')'."})
    void anErrorSaysWhereAndWhatWasExpected(String rule, int column, String words) {
        assertThatThrownBy(() -> Rule.parse(rule)).isInstanceOfSatisfying(RuleException.class, e -> {
            assertThat(e.line()).isEqualTo(1);
            assertThat(e.column()).as(e.getMessage()).isEqualTo(column);
            assertThat(e).hasMessageContaining(words).hasMessageStartingWith("Line 1, column " + column + ": ");
        });
    }

    @Test
    void linesAreCounted() {
        assertThatThrownBy(() -> Rule.parse("arch eq \"x64\"\n  and bogus eq 1"))
                .isInstanceOfSatisfying(RuleException.class, e -> {
                    assertThat(e.line()).isEqualTo(2);
                    assertThat(e.column()).isEqualTo(7);
                });
    }

    @Test
    void theLimitsAreSaid() {
        assertThatThrownBy(() -> Rule.parse("x".repeat(Rule.LONGEST + 1))).isInstanceOf(RuleException.class)
                .hasMessageContaining("at most 8192 characters");
        assertThatThrownBy(() -> Rule.parse("(".repeat(51) + "arch pr" + ")".repeat(51)))
                .isInstanceOf(RuleException.class).hasMessageContaining("at most 50 deep");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "   ", "\n"})
    void nothingIsNoRule(String rule) {
        assertThatThrownBy(() -> Rule.parse(rule)).isInstanceOf(RuleException.class)
                .hasMessageContaining("expected an attribute");
    }

    /** Whatever the text, parsing ends, and throws nothing but its own error. */
    @Test
    void anyTextEndsInARuleOrItsOwnError() {
        List<String> pieces = List.of("arch", "os.version", "software", "[", "]", "(", ")", "not", "and", "or", "eq",
                "ne", "ge", "pr", "\"x\"", "\"", "\\", "8", "-", "1e999", "x.y", ".", "people", "-P1D", "\u0000",
                "\uD83D\uDCA7", "\uD83D", "\n", "collection", "\"-P1D\"", "lastSeen", "true");
        for (long seed = 0; seed < 20_000; seed++) {
            Random random = new Random(seed);
            StringBuilder text = new StringBuilder();
            int length = random.nextInt(14);
            for (int i = 0; i < length; i++) {
                text.append(pieces.get(random.nextInt(pieces.size()))).append(random.nextInt(4) == 0 ? "" : " ");
            }
            Throwable thrown = catchThrowable(() -> Rule.parse(text.toString()).holds(new Facts()));
            if (thrown != null) {
                assertThat(thrown).as("seed %d: %s", seed, text).isInstanceOf(RuleException.class);
            }
        }
    }
}
