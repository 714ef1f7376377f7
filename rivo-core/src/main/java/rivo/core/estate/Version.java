package rivo.core.estate;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

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
        String whole = text.strip();
        List<Part> parts = new ArrayList<>();
        boolean afterSeparator = true;
        for (int at = 0; at <= whole.length();) {
            int end = pieceEnd(whole, at);
            if (end > at || afterSeparator) {
                add(parts, Part.of(whole.substring(at, end)));
            }
            afterSeparator = end < whole.length() && isSeparator(whole.charAt(end));
            at = afterSeparator || end == whole.length() ? end + 1 : end;
        }
        dropZerosAtEnd(parts);
        return List.copyOf(parts);
    }

    private static void add(List<Part> parts, Part part) {
        if (part.isPreRelease()) {
            dropZerosAtEnd(parts);
        }
        parts.add(part);
    }

    /** Where the digits or the word that begins here end; here where a separator or nothing stands. */
    private static int pieceEnd(String whole, int at) {
        int end = at;
        while (end < whole.length() && !isSeparator(whole.charAt(end)) && isDigit(whole.charAt(end)) == isDigit(whole.charAt(at))) {
            end++;
        }
        return end;
    }

    private static boolean isSeparator(char letter) {
        return letter == '.' || letter == '-' || letter == '_' || letter == '+';
    }

    private static boolean isDigit(char letter) {
        return letter >= '0' && letter <= '9';
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
     * @param small the number where a long holds it
     * @param large the number where it does not; else null
     */
    private record Part(int rank, String word, long small, @Nullable BigInteger large) implements Comparable<Part> {

        private static final int ZERO_RANK = PRE_RELEASE.size();
        private static final int WORD_RANK = ZERO_RANK + 1;
        private static final int NUMBER_RANK = ZERO_RANK + 2;
        private static final Part ZERO = new Part(ZERO_RANK, "", 0, null);
        /** So many digits always fit into a long. */
        private static final int DIGITS_OF_LONG = 18;

        private Part {
            Objects.requireNonNull(word);
        }

        static Part of(String piece) {
            if (piece.isEmpty()) {
                return ZERO;
            }
            if (isDigit(piece.charAt(0))) {
                return piece.length() <= DIGITS_OF_LONG ? number(Long.parseLong(piece)) : number(new BigInteger(piece));
            }
            String word = piece.toLowerCase(Locale.ROOT);
            int preRelease = PRE_RELEASE.indexOf(word);
            return new Part(preRelease >= 0 ? preRelease : WORD_RANK, word, 0, null);
        }

        private static Part number(BigInteger number) {
            return number.bitLength() < Long.SIZE ? number(number.longValue()) : new Part(NUMBER_RANK, "", 0, number);
        }

        private static Part number(long number) {
            return number == 0 ? ZERO : new Part(NUMBER_RANK, "", number, null);
        }

        boolean isPreRelease() {
            return rank < ZERO_RANK;
        }

        @Override
        public int compareTo(Part other) {
            if (rank != other.rank) {
                return Integer.compare(rank, other.rank);
            }
            return rank == NUMBER_RANK ? compareNumbers(other) : word.compareTo(other.word);
        }

        private int compareNumbers(Part other) {
            if (large != null && other.large != null) {
                return large.compareTo(other.large);
            }
            return large == null && other.large == null ? Long.compare(small, other.small) : large == null ? -1 : 1;
        }
    }
}
