package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
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

    /** The cutting again, in one expression. */
    private static final Pattern PIECE = Pattern.compile("[0-9]+|[^0-9.\\-_+]+|(?<=^|[.\\-_+])(?=[.\\-_+]|$)");

    @Test
    void everyTextIsCutAtSeparatorsAndWhereDigitsMeetLetters() {
        Random random = new Random(20);
        String letters = "..--__++0019zrc\u00e9\u0661";
        for (int round = 0; round < 20_000; round++) {
            String text = random.ints(random.nextInt(1, 12), 0, letters.length()).mapToObj(at -> letters.substring(at, at + 1))
                    .collect(Collectors.joining());
            String cut = PIECE.matcher(text).results().map(piece -> piece.group().isEmpty() ? "0" : piece.group()).collect(Collectors.joining("."));
            assertThat(Version.of(text)).as(text).isEqualTo(Version.of(cut)).isEqualByComparingTo(Version.of(cut));
        }
    }

    @Test
    void numbersOfAnyLengthAreCompared() {
        List<String> numbers = List.of("0", "9", "999999999999999999", "9223372036854775807", "9223372036854775808", "10000000000000000000000");
        for (int i = 1; i < numbers.size(); i++) {
            assertThat(Version.of(numbers.get(i))).isGreaterThan(Version.of(numbers.get(i - 1))).isEqualTo(Version.of("00" + numbers.get(i)));
            assertThat(Version.of(numbers.get(i - 1))).isLessThan(Version.of(numbers.get(i)));
        }
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
