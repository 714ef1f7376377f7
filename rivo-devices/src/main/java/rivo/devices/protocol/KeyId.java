package rivo.devices.protocol;

import java.util.Optional;

/**
 * Names the key of a signature, as its parameter {@code keyid}.
 *
 * @param name the id of the device; for an enrolment the public key of the token
 * @param serverTag which of the server's keys it was derived from: {@link MessageKey#tag}
 */
public record KeyId(String name, String serverTag) {

    private static final int LONGEST_NAME = 200;
    private static final int TAG_LENGTH = 8;

    /** A name is of 1 to 200 visible ASCII characters, no quotation mark, no backslash and no at sign; a tag of 8 hexadecimal digits. */
    static Optional<KeyId> parse(String text) {
        int at = text.length() - TAG_LENGTH - 1;
        if (at < 1 || at > LONGEST_NAME || text.charAt(at) != '@') {
            return Optional.empty();
        }
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean may = i < at ? c > ' ' && c < 0x7f && c != '"' && c != '\\' && c != '@'
                    : i == at || SignatureText.isDigit(c) || c >= 'a' && c <= 'f';
            if (!may) {
                return Optional.empty();
            }
        }
        return Optional.of(new KeyId(text.substring(0, at), text.substring(at + 1)));
    }

    @Override
    public String toString() {
        return name + "@" + serverTag;
    }
}
