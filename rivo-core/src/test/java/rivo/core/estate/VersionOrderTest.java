package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Versions are in one order, whichever two are compared; held against comparing them part by part, as it is written. */
class VersionOrderTest {

    private static final List<String> PIECES = List.of("0", "00", "1", "2", "10", "7", "a", "B", "b", "rc", "RC", "beta", "dev", "cr",
            "ea", "pre", "sp", "", "final", "99999999999999999999");
    private static final List<String> BETWEEN = List.of(".", "-", "_", "+", "");
    private static final List<String> PRE_RELEASE = List.of("dev", "snapshot", "nightly", "canary", "alpha", "ea", "insider",
            "preview", "pre", "prerelease", "milestone", "beta", "rc", "cr");
    private static final Pattern PART = Pattern.compile("[0-9]+|[^0-9]+");

    /** A part: what it is among all kinds of parts, and then its number or word. */
    private record Part(int kind, BigInteger number, String word) implements Comparable<Part> {

        private static final Part ZERO = new Part(1, BigInteger.ZERO, "");

        static Part of(String text) {
            if (Character.isDigit(text.charAt(0))) {
                BigInteger number = new BigInteger(text);
                return number.signum() == 0 ? ZERO : new Part(3, number, "");
            }
            String word = text.toLowerCase(java.util.Locale.ROOT);
            int at = PRE_RELEASE.indexOf(word);
            return at >= 0 ? new Part(0, BigInteger.valueOf(at), "") : new Part(2, BigInteger.ZERO, word);
        }

        @Override
        public int compareTo(Part other) {
            int byKind = Integer.compare(kind, other.kind);
            int byNumber = byKind != 0 ? byKind : number.compareTo(other.number);
            return byNumber != 0 ? byNumber : word.compareTo(other.word);
        }
    }

    private static List<Part> parts(String version) {
        List<Part> parts = new ArrayList<>();
        for (String between : version.split("[.\\-_+]", -1)) {
            if (between.isEmpty()) {
                parts.add(Part.ZERO);
            }
            for (Matcher part = PART.matcher(between); part.find();) {
                Part next = Part.of(part.group());
                while (next.kind() == 0 && !parts.isEmpty() && parts.get(parts.size() - 1).equals(Part.ZERO)) {
                    parts.remove(parts.size() - 1);
                }
                parts.add(next);
            }
        }
        return parts;
    }

    private static int compared(String one, String other) {
        List<Part> mine = parts(one);
        List<Part> theirs = parts(other);
        for (int i = 0; i < Math.max(mine.size(), theirs.size()); i++) {
            int part = (i < mine.size() ? mine.get(i) : Part.ZERO).compareTo(i < theirs.size() ? theirs.get(i) : Part.ZERO);
            if (part != 0) {
                return part;
            }
        }
        return 0;
    }

    private static List<String> some(int seed) {
        Random random = new Random(seed);
        List<String> versions = new ArrayList<>();
        while (versions.size() < 40) {
            StringBuilder text = new StringBuilder();
            for (int n = 1 + random.nextInt(5); n > 0; n--) {
                text.append(PIECES.get(random.nextInt(PIECES.size()))).append(n == 1 ? "" : BETWEEN.get(random.nextInt(5)));
            }
            if (!text.toString().isBlank()) {
                versions.add(text.toString());
            }
        }
        return versions;
    }

    @Test
    void theyCompareAsTheirPartsDo() {
        for (int seed = 0; seed < 60; seed++) {
            List<String> versions = some(seed);
            for (String one : versions) {
                for (String other : versions) {
                    int said = Integer.signum(Version.of(one).compareTo(Version.of(other)));
                    assertThat(said).as("%s and %s", one, other).isEqualTo(Integer.signum(compared(one, other)));
                    if (said == 0) {
                        assertThat(Version.of(one)).as("%s and %s", one, other).isEqualTo(Version.of(other))
                                .hasSameHashCodeAs(Version.of(other));
                    }
                }
            }
        }
    }

    @Test
    void theOrderIsOneOrder() {
        for (int seed = 100; seed < 160; seed++) {
            List<Version> sorted = some(seed).stream().map(Version::of).sorted().toList();
            for (int i = 0; i < sorted.size(); i++) {
                for (int j = i; j < sorted.size(); j++) {
                    assertThat(sorted.get(i).compareTo(sorted.get(j))).as("%s, %s", sorted.get(i), sorted.get(j))
                            .isLessThanOrEqualTo(0);
                    assertThat(sorted.get(j).compareTo(sorted.get(i))).isGreaterThanOrEqualTo(0);
                }
            }
        }
    }
}
