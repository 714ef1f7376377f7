package rivo.server.web;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;

/** The query of an address, as it was written. */
final class QueryText {

    private QueryText() {
    }

    /** Whether what is percent-encoded is well formed and comes to UTF-8, without a NUL. */
    static boolean isUtf8(String query) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < query.length(); i++) {
            char c = query.charAt(i);
            if (c != '%') {
                bytes.write(c);
                continue;
            }
            int high = i + 2 < query.length() ? Character.digit(query.charAt(i + 1), 16) : -1;
            int low = i + 2 < query.length() ? Character.digit(query.charAt(i + 2), 16) : -1;
            if (high < 0 || low < 0 || high + low == 0) {
                return false;
            }
            bytes.write(high << 4 | low);
            i += 2;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes.toByteArray()));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
