package rivo.core.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What rules say of one device. */
class RuleTest {

    private static final Facts DEVICE = new Facts().with("name", "QB-LAB-014").with("os.family", "windows")
            .with("os.version", "10.0.26100").with("arch", "x64").with("ramgib", "16").with("site", "")
            .with("lastseen", "2026-11-22T17:05:00Z").with("group", "lab-analysts", "Loan-Pool")
            .with("ou", "ou=Bench,ou=Laboratories,dc=quillbrook,dc=example", "dc=quillbrook,dc=example")
            .with("collection", "Lab PCs").with("x.rack", "B 7").with("model", "GRÖSSE 7")
            .element("software", new Facts().with("name", "Siltscope Lab").with("version", "4.2.0-rc1")
                    .with("publisher", "Fenwick Instruments"))
            .element("software", new Facts().with("name", "Graphkit runtime").with("version", "2.4.1"))
            .element("present", new Facts().with("title", "siltscope").with("version", "4.2.0-rc1"))
            .element("people", new Facts().with("name", "imara.voss").with("department", "Water quality")
                    .with("floor", "3").with("group", "duty-engineers"));

    private static boolean holds(String rule) {
        return Rule.parse(rule).holds(DEVICE);
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "os.family eq \"windows\" and arch eq \"x64\"",
        "OS.Family EQ \"WINDOWS\"",
        "arch ne \"arm64\"",
        "language ne \"en\"",
        "not (language eq \"en\")",
        "name sw \"qb-\" and name ew \"014\" and name co \"LAB\"",
        "name gt \"QB-LAB-013\" and name le \"qb-lab-014\"",
        "model eq \"grösse 7\"",
        "ramGiB ge 16 and ramGiB lt 16.5 and ramGiB eq 1.6e1",
        "os.version ge \"10.0.26100.0\" and os.version lt \"10.0.30000\"",
        "lastSeen gt \"-P14D\" and lastSeen lt \"-PT12H\"",
        "lastSeen ge \"-P1W\" and lastSeen gt \"2026-11-22T18:00:00+02:00\"",
        "ou eq \"DC=Quillbrook , dc = example\"",
        "ou ew \"ou=laboratories,dc=quillbrook,dc=example\"",
        "group eq \"loan-pool\" and group ne \"crew-tablets\"",
        "collection eq \"LAB PCS\"",
        "x.rack eq \"b 7\" and X.Rack pr",
        "software[name eq \"Siltscope Lab\" and version lt \"4.2\"]",
        "not (software[name eq \"Siltscope Lab\" and version lt \"4\"])",
        "software.name eq \"graphkit runtime\"",
        "software.name ne \"Mudview\"",
        "software[name ne \"Siltscope Lab\"]",
        "present[title eq \"siltscope\" and version ge \"4.2.0-beta9\"]",
        "people[department eq \"water quality\" and floor eq \"3\"]",
        "people.group eq \"duty-engineers\"",
        "software pr and people pr",
        "group pr",
        "arch eq \"arm64\" or arch eq \"x64\" and ramGiB gt 8",
        "(arch eq \"arm64\" or arch eq \"x64\") and (ramGiB gt 8)",
        "name eq \"\\u0051B-LAB-014\"",
        "\n arch\teq \"x64\" "})
    void holdsForTheDevice(String rule) {
        assertThat(holds(rule)).isTrue();
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "model eq \"Größe 7\"",
        "language eq \"en\"",
        "language co \"\"",
        "language pr",
        "site pr",
        "diskFreeGiB lt 1000",
        "diskFreeGiB ge 0",
        "enrolled lt \"2030-01-01T00:00:00Z\"",
        "group ne \"LOAN-POOL\"",
        "software.name ne \"siltscope lab\"",
        "software[name eq \"Siltscope Lab\" and version ge \"4.2\"]",
        "software[name eq \"Graphkit runtime\" and publisher eq \"Fenwick Instruments\"]",
        "not (group eq \"lab-analysts\" or arch eq \"arm64\")",
        "present[title eq \"graphkit\"]",
        "collection eq \"Other PCs\"",
        "arch eq \"x64\" and arch eq \"arm64\""})
    void doesNotHoldForTheDevice(String rule) {
        assertThat(holds(rule)).isFalse();
    }

    @Test
    void andBindsTighterThanOr() {
        Facts phone = new Facts().with("arch", "arm64");
        assertThat(Rule.parse("arch eq \"arm64\" or arch eq \"x64\" and ramGiB gt 8").holds(phone)).isTrue();
        assertThat(Rule.parse("(arch eq \"arm64\" or arch eq \"x64\") and ramGiB gt 8").holds(phone)).isFalse();
    }

    @Test
    void theTurkishLettersFoldToThemselves() {
        assertThat(Folding.fold("İ")).isEqualTo("İ").isNotEqualTo(Folding.fold("i"));
        assertThat(Folding.fold("ı")).isNotEqualTo(Folding.fold("I"));
        assertThat(Folding.fold("ΣΑΣ")).isEqualTo(Folding.fold("σας"));
        assertThat(Folding.fold("\u212A")).isEqualTo("k");
        assertThat(Folding.fold("\uAB70")).isEqualTo("\u13A0");
    }

    @Test
    void aValueOfTheWrongKindSatisfiesNothing() {
        Facts odd = new Facts().with("ramgib", "much").with("lastseen", "yesterday").with("os.version", "");
        assertThat(Rule.parse("ramGiB ge 0").holds(odd)).isFalse();
        assertThat(Rule.parse("lastSeen lt \"2030-01-01T00:00:00Z\"").holds(odd)).isFalse();
        assertThat(Rule.parse("os.version ge \"0\"").holds(odd)).isFalse();
        assertThat(Rule.parse("ramGiB ne 8").holds(odd)).isTrue();
    }

    @Test
    void theCollectionsItAsksAboutAreKnown() {
        assertThat(Rule.parse("collection eq \"A\" or not (collection ne \"B\") and arch pr").collections())
                .containsExactlyInAnyOrder("A", "B");
    }

    @Test
    void aRuleAsLongAndAsDeepAsAllowedIsTaken() {
        String deep = "(".repeat(50) + "arch pr" + ")".repeat(50);
        assertThatCode(() -> Rule.parse(deep)).doesNotThrowAnyException();
        String wide = "arch pr" + " or arch pr".repeat(744);
        assertThat(wide.length()).isLessThanOrEqualTo(Rule.LONGEST);
        assertThatCode(() -> Rule.parse(wide)).doesNotThrowAnyException();
    }

    @Test
    void equalTextsAreEqualRules() {
        assertThat(Rule.parse("arch pr")).isEqualTo(Rule.parse("arch pr")).hasToString("arch pr")
                .isNotEqualTo(Rule.parse("arch  pr"));
    }
}
