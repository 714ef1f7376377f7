package rivo.devices.protocol;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Names the key of a signature, as its parameter {@code keyid}.
 *
 * @param name the id of the device; for an enrolment the public key of the token
 * @param serverTag which of the server's keys it was derived from: {@link MessageKey#tag}
 */
public record KeyId(String name, String serverTag) {

    /** A name is of visible ASCII characters, no quotation mark, no backslash and no at sign. */
    private static final Pattern TEXT = Pattern.compile("(?<name>[!#-?A-\\[\\]-~]{1,200})@(?<tag>[0-9a-f]{8})");

    static Optional<KeyId> parse(String text) {
        Matcher matcher = TEXT.matcher(text);
        return matcher.matches() ? Optional.of(new KeyId(matcher.group("name"), matcher.group("tag"))) : Optional.empty();
    }

    @Override
    public String toString() {
        return name + "@" + serverTag;
    }
}
