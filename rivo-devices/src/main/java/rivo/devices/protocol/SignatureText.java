package rivo.devices.protocol;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What the signatures of requests and of answers have in common when they are written as headers (RFC 9421, section 4). There is one form
 * of each, which is read letter by letter: a server reads and writes thousands of them a second.
 */
final class SignatureText {

    static final String LABEL = "rivo";

    private static final String CREATED = ";created=";
    private static final int LONGEST_CREATED = 12;
    private static final String KEY_ID = ";keyid=\"";
    private static final String END = "\";alg=\"hmac-sha256\"";
    private static final String BEFORE_VALUE = LABEL + "=:";
    /** 32 bytes in base64 (RFC 4648, section 4), and what fills up the last four characters. */
    private static final int VALUE_LENGTH = 44;

    private SignatureText() {
    }

    /** When something was signed, to the second, and by which key. */
    record Parameters(Instant created, KeyId keyId) {

        /** As they follow the covered components. */
        String text() {
            return CREATED + created.getEpochSecond() + KEY_ID + keyId + END;
        }
    }

    /**
     * Reads the header {@code Signature-Input}; empty when it is missing or of another form.
     *
     * @param covered the components that have to be covered, as they are written
     */
    static Optional<Parameters> parameters(@Nullable String header, String covered) {
        String before = LABEL + "=" + covered + CREATED;
        if (header == null || !header.startsWith(before)) {
            return Optional.empty();
        }
        int created = before.length();
        int end = created;
        while (end < header.length() && isDigit(header.charAt(end))) {
            end++;
        }
        int key = end + KEY_ID.length();
        int keyEnd = header.length() - END.length();
        if (end == created || end - created > LONGEST_CREATED || !header.startsWith(KEY_ID, end) || key > keyEnd || !header.endsWith(END)) {
            return Optional.empty();
        }
        Instant at = Instant.ofEpochSecond(Long.parseLong(header, created, end, 10));
        return KeyId.parse(header.substring(key, keyEnd)).map(id -> new Parameters(at, id));
    }

    /** The header {@code Signature}. */
    static String header(String value) {
        return BEFORE_VALUE + value + ":";
    }

    /** What such a header holds; empty when it is missing or of another form. */
    static Optional<String> value(@Nullable String header) {
        int from = BEFORE_VALUE.length();
        int fill = from + VALUE_LENGTH - 1;
        if (header == null || header.length() != fill + 2 || !header.startsWith(BEFORE_VALUE) || !header.endsWith("=:")) {
            return Optional.empty();
        }
        for (int i = from; i < fill; i++) {
            char c = header.charAt(i);
            if (!(isDigit(c) || c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c == '+' || c == '/')) {
                return Optional.empty();
            }
        }
        return Optional.of(header.substring(from, fill + 1));
    }

    /** Of ASCII alone. */
    static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
