package rivo.server.log;

/** Text in a log line: characters that would end the line, or move what a terminal shows, are written as what they are. */
final class EscapedText {

    private EscapedText() {
    }

    static String of(String text) {
        StringBuilder escaped = new StringBuilder(text.length());
        text.codePoints().forEach(c -> {
            if (isHarmless(c)) {
                escaped.appendCodePoint(c);
            } else {
                escaped.append(String.format("\\u%04x", c));
            }
        });
        return escaped.toString();
    }

    private static boolean isHarmless(int c) {
        int type = Character.getType(c);
        return type != Character.CONTROL && type != Character.FORMAT && type != Character.LINE_SEPARATOR
                && type != Character.PARAGRAPH_SEPARATOR && type != Character.SURROGATE && type != Character.UNASSIGNED;
    }
}
