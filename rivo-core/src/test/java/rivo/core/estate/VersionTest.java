package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class VersionTest {

    @ParameterizedTest
    @CsvSource({"4.2, 4.2.0", "4.2.0-rc1, 4.2-rc1", "4.2.rc1, 4.2-RC1", "4..2, 4.0.2", "1.0-Beta, 1_beta", "007, 7",
        "4.2., 4.2", "2.0+3, 2.0.3"})
    void versionsThatCompareEqualAreEqual(String one, String other) {
        assertThat(Version.of(one)).isEqualByComparingTo(Version.of(other)).isEqualTo(Version.of(other))
                .hasSameHashCodeAs(Version.of(other));
    }

    @ParameterizedTest
    @CsvSource({"4.2.0-rc1, 4.2-rc2", "4.2-rc2, 4.2", "4.2, 4.2.0a", "4.2.0a, 4.2.0.1", "9.9, 10.0", "1-dev, 1-alpha",
        "1-rc, 1-cr", "1-beta9, 1-rc1", "4.2-rc, 4.2-rc1", "1.9999999999999999998, 1.9999999999999999999"})
    void theFirstIsLower(String lower, String higher) {
        assertThat(Version.of(lower)).isLessThan(Version.of(higher));
        assertThat(Version.of(higher)).isGreaterThan(Version.of(lower));
    }

    @Test
    void preReleaseWordsStandInTheirOrder() {
        List<String> words = List.of("dev", "snapshot", "nightly", "canary", "alpha", "ea", "insider", "preview",
                "pre", "prerelease", "milestone", "beta", "rc", "cr");
        List<Version> versions = words.stream().map(word -> Version.of("3." + word)).toList();
        assertThat(versions).isSorted();
        assertThat(versions.get(13)).isLessThan(Version.of("3"));
    }

    @Test
    void theTextStaysAsItWasWritten() {
        assertThat(Version.of("4.2.0-RC1")).hasToString("4.2.0-RC1");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "  "})
    void nothingIsNoVersion(String text) {
        assertThatThrownBy(() -> Version.of(text)).isInstanceOf(RefusedException.class).hasMessageContaining("4.2.0");
    }

    @Test
    void aVeryLongTextIsNoVersion() {
        assertThatThrownBy(() -> Version.of("1".repeat(Version.LONGEST + 1))).isInstanceOf(RefusedException.class);
    }
}
