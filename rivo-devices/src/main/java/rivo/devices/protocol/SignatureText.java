package rivo.devices.protocol;

import java.time.Instant;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** What the signatures of requests and of answers have in common when they are written as headers (RFC 9421, section 4). */
final class SignatureText {

    static final String LABEL = "rivo";
    /** A pattern for the parameters, which come in one order only; a key id is of visible ASCII characters, no quotation mark and no backslash. */
    static final String PARAMETERS = ";created=(?<created>[0-9]{1,12});keyid=\"(?<key>[!#-\\[\\]-~]{1,220})\";alg=\"hmac-sha256\"";
    private static final Pattern VALUE = Pattern.compile(LABEL + "=:(?<value>[A-Za-z0-9+/]{43}=):");

    private SignatureText() {
    }

    static String parameters(Instant created, KeyId keyId) {
        return ";created=" + created.getEpochSecond() + ";keyid=\"" + keyId + "\";alg=\"hmac-sha256\"";
    }

    static Instant created(Matcher input) {
        return Instant.ofEpochSecond(Long.parseLong(input.group("created")));
    }

    /** The header {@code Signature}. */
    static String header(String value) {
        return LABEL + "=:" + value + ":";
    }

    /** What such a header holds; empty when it is missing or of another form. */
    static Optional<String> value(@Nullable String header) {
        Matcher matcher = VALUE.matcher(header == null ? "" : header);
        return matcher.matches() ? Optional.of(matcher.group("value")) : Optional.empty();
    }
}
