package rivo.core.estate;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A version, compared part by part as section 5 of the resolution rules says.
 *
 * <p>Equality follows the comparison: 4.2 equals 4.2.0. {@link #toString()} gives the text as it was written.
 *
 * <p><b>How.</b> The text is cut at {@code . - _ +} and wherever digits meet letters. An empty part is the number 0.
 * Zeros right before a pre-release word are left out, so that 4.2.0-rc1 equals 4.2-rc1, and zeros at the end add
 * nothing. What remains is kept as a list of parts; a missing part counts as 0.
 */
public final class Version implements Comparable<Version> {

    /** The longest text taken for a version, in characters. */
    public static final int LONGEST = 200;

    private static final Pattern PART = Pattern.compile("[0-9]+|[^0-9.\\-_+]+|(?<=^|[.\\-_+])(?=[.\\-_+]|$)");
    private static final List<String> PRE_RELEASE = List.of("dev", "snapshot", "nightly", "canary", "alpha", "ea",
            "insider", "preview", "pre", "prerelease", "milestone", "beta", "rc", "cr");

    private final String text;
    private final List<Part> parts;

    private Version(String text, List<Part> parts) {
        this.text = text;
        this.parts = parts;
    }

    /**
     * @throws RefusedException when the text is blank or longer than {@link #LONGEST}
     */
    public static Version of(String text) {
        if (text.isBlank() || text.length() > LONGEST) {
            throw new RefusedException("bad-version", "",
                    "A version has 1 to " + LONGEST + " characters; write one such as 4.2.0.");
        }
        return new Version(text, partsOf(text));
    }

    private static List<Part> partsOf(String text) {
        List<Part> parts = new ArrayList<>();
        Matcher matcher = PART.matcher(text.strip());
        while (matcher.find()) {
            Part part = Part.of(matcher.group());
            if (part.isPreRelease()) {
                dropZerosAtEnd(parts);
            }
            parts.add(part);
        }
        dropZerosAtEnd(parts);
        return List.copyOf(parts);
    }

    private static void dropZerosAtEnd(List<Part> parts) {
        while (!parts.isEmpty() && parts.get(parts.size() - 1).equals(Part.ZERO)) {
            parts.remove(parts.size() - 1);
        }
    }

    @Override
    public int compareTo(Version other) {
        int longest = Math.max(parts.size(), other.parts.size());
        for (int i = 0; i < longest; i++) {
            int order = part(i).compareTo(other.part(i));
            if (order != 0) {
                return order;
            }
        }
        return 0;
    }

    private Part part(int i) {
        return i < parts.size() ? parts.get(i) : Part.ZERO;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Version version && parts.equals(version.parts);
    }

    @Override
    public int hashCode() {
        return parts.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }

    /**
     * The rank puts pre-release words first, then 0, then all other words, then 1, 2, 3 and so on.
     *
     * @param small the number where a long holds it, so that most are compared at once; else -1
     */
    private record Part(int rank, String word, long small, BigInteger number) implements Comparable<Part> {

        private static final int ZERO_RANK = PRE_RELEASE.size();
        private static final int WORD_RANK = ZERO_RANK + 1;
        private static final int NUMBER_RANK = ZERO_RANK + 2;
        private static final Part ZERO = new Part(ZERO_RANK, "", 0, BigInteger.ZERO);

        private Part {
            Objects.requireNonNull(word);
        }

        static Part of(String piece) {
            if (piece.isEmpty()) {
                return ZERO;
            }
            if (Character.isDigit(piece.charAt(0)) && piece.charAt(0) < 128) {
                BigInteger number = new BigInteger(piece);
                return number.signum() == 0 ? ZERO : new Part(NUMBER_RANK, "",
                        number.bitLength() < Long.SIZE ? number.longValue() : -1, number);
            }
            String word = piece.toLowerCase(Locale.ROOT);
            int preRelease = PRE_RELEASE.indexOf(word);
            return new Part(preRelease >= 0 ? preRelease : WORD_RANK, word, 0, BigInteger.ZERO);
        }

        boolean isPreRelease() {
            return rank < ZERO_RANK;
        }

        @Override
        public int compareTo(Part other) {
            if (rank != other.rank) {
                return Integer.compare(rank, other.rank);
            }
            if (rank == NUMBER_RANK && small > 0 && other.small > 0) {
                return Long.compare(small, other.small);
            }
            return rank == NUMBER_RANK ? number.compareTo(other.number) : word.compareTo(other.word);
        }
    }
}
