package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class FactsTest {

    @Test
    void aNameIsFoundHoweverItIsCapitalised() {
        Facts facts = Facts.of(Map.of("ramGiB", "16", "x.Room", "b12"));
        assertThat(facts.get("ramGiB")).isEqualTo("16");
        assertThat(facts.get("RAMGIB")).isEqualTo("16");
        assertThat(facts.get("x.room")).isEqualTo("b12");
        assertThat(facts.get("arch")).isNull();
        assertThat(Facts.NONE.get("arch")).isNull();
    }

    @Test
    void namesStandInOrderWithTheirValues() {
        Map<String, String> given = new LinkedHashMap<>();
        given.put("site", "Weir");
        given.put("arch", "x64");
        Facts facts = Facts.of(given);
        assertThat(facts.size()).isEqualTo(2);
        assertThat(facts.name(0) + "=" + facts.value(0)).isEqualTo("arch=x64");
        assertThat(facts.name(1) + "=" + facts.value(1)).isEqualTo("site=Weir");
        List<String> walked = new ArrayList<>();
        facts.forEach((name, value) -> walked.add(name + "=" + value));
        assertThat(walked).containsExactly("arch=x64", "site=Weir");
        assertThat(facts.asMap()).isEqualTo(given);
        assertThat(facts).hasToString("{arch=x64, site=Weir}");
    }

    @Test
    void whatIsGivenMayChangeAfterwards() {
        Map<String, String> given = new LinkedHashMap<>(Map.of("arch", "x64"));
        Facts facts = Facts.of(given);
        given.put("arch", "arm64");
        given.put("site", "Weir");
        assertThat(facts.asMap()).isEqualTo(Map.of("arch", "x64"));
    }

    @Test
    void thoseOfEqualNamesShareThem() {
        Facts one = Facts.of(Map.of("arch", "x64", "site", "Weir"));
        Facts other = Facts.of(Map.of("site", "Mill", "arch", "arm64"));
        assertThat(one.sharesNamesWith(other)).isTrue();
        assertThat(one.sharesNamesWith(Facts.of(Map.of("arch", "x64")))).isFalse();
        assertThat(one.sharesNamesWith(Facts.of(Map.of("Arch", "x64", "site", "Weir")))).isFalse();
    }

    @Test
    void equalFactsAreEqualWhetherTheyShareTheirNamesOrNot() {
        Facts facts = Facts.of(Map.of("arch", "x64"));
        assertThat(facts).isEqualTo(Facts.of(Map.of("arch", "x64"))).hasSameHashCodeAs(Facts.of(Map.of("arch", "x64")))
                .isNotEqualTo(Facts.of(Map.of("arch", "arm64"))).isNotEqualTo(Facts.of(Map.of("Arch", "x64")))
                .isNotEqualTo(Facts.NONE);
        assertThat(Facts.of(Map.of())).isSameAs(Facts.NONE);
        assertThat(Facts.NONE.isEmpty()).isTrue();
    }

    @Test
    void whateverNamesDevicesComeUpWithAreKeptRight() {
        for (int i = 0; i < 6000; i++) {
            String name = "x.made" + i;
            assertThat(Facts.of(Map.of(name, "v" + i, "arch", "x64")).get(name)).isEqualTo("v" + i);
        }
        assertThat(Facts.of(Map.of("x.late", "1"))).isEqualTo(Facts.of(Map.of("x.late", "1")));
    }
}
