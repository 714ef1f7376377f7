package rivo.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class RuleOutlineTest {

    private static String outline(String rule) {
        return shown(RuleOutline.of(Rule.parse(rule)));
    }

    private static String shown(RuleOutline line) {
        String own = switch (line.kind()) {
            case CLAUSE -> line.attribute() + " " + line.operator() + (line.operator().equals("pr") ? "" : " <" + line.value() + ">");
            case SOME, HAS -> line.kind().word() + " " + line.attribute();
            case ALL, ANY, NONE -> line.kind().word();
        };
        return line.parts().isEmpty() ? own : own + line.parts().stream().map(RuleOutlineTest::shown).collect(Collectors.joining("; ", "(", ")"));
    }

    @Test
    void aRuleIsClausesAndGroupsOfThem() {
        assertThat(outline("arch eq \"x64\"")).isEqualTo("arch eq <x64>");
        assertThat(outline("arch eq \"x64\" and (ramGiB ge 8 or name sw \"QB\")")).isEqualTo("all(arch eq <x64>; any(ramGiB ge <8>; name sw <QB>))");
        assertThat(outline("OS.Version ge \"10.0\" or lastSeen gt \"-P14D\"")).isEqualTo("any(os.version ge <10.0>; lastSeen gt <-P14D>)");
    }

    @Test
    void whatIsNegatedStandsBelowALineThatSaysSo() {
        assertThat(outline("not (arch eq \"x64\" or ramGiB lt 8)")).isEqualTo("none(arch eq <x64>; ramGiB lt <8>)");
        assertThat(outline("not (arch eq \"x64\" and ramGiB lt 8)")).isEqualTo("none(all(arch eq <x64>; ramGiB lt <8>))");
        assertThat(outline("not (software pr)")).isEqualTo("none(has software)");
        assertThat(outline("not (arch co \"x\")")).isEqualTo("none(arch co <x>)");
    }

    @Test
    void notEqualIsAClauseOfItsOwn() {
        assertThat(outline("arch ne \"x64\"")).isEqualTo("arch ne <x64>");
        assertThat(outline("not (arch eq \"x64\")")).as("which says the same").isEqualTo("arch ne <x64>");
        assertThat(outline("ramGiB ne 8")).isEqualTo("ramGiB ne <8>");
    }

    @Test
    void whatStandsInBracketsIsAboutOneElement() {
        assertThat(outline("software[name eq \"A \\\"B\\\" \\\\C\" and version ge \"4.2\"]"))
                .isEqualTo("some software(all(name eq <A \"B\" \\C>; version ge <4.2>))");
        assertThat(outline("software.name ne \"A\"")).isEqualTo("none(some software(name eq <A>))");
        assertThat(outline("present pr")).isEqualTo("has present");
        assertThat(outline("arch pr")).isEqualTo("arch pr");
    }

    @Test
    void eachLineIsTheSameQuestion() {
        Facts facts = new Facts();
        RuleOutline line = RuleOutline.of(Rule.parse("not (arch pr) and ramGiB ne 8"));
        assertThat(line.condition().holds(facts)).isTrue();
        assertThat(line.parts()).allSatisfy(part -> assertThat(part.condition().holds(facts)).isTrue());
        assertThat(line.parts().get(0).parts().get(0).condition().holds(facts)).isFalse();
    }

    @Test
    void theAttributesAreKnownByNameAndType() {
        assertThat(RuleAttribute.all()).contains(new RuleAttribute("arch", "text"), new RuleAttribute("ramGiB", "number"),
                new RuleAttribute("os.version", "version"), new RuleAttribute("ou", "dn"), new RuleAttribute("collection", "collection"),
                new RuleAttribute("software.name", "text"), new RuleAttribute("people.ou", "dn"), new RuleAttribute("lastSeen", "instant"))
                .extracting(RuleAttribute::name).doesNotContain("software").isSorted();
    }
}
