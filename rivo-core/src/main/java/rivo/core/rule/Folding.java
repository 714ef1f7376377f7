package rivo.core.rule;

/** Text without regard to case: Unicode simple case folding, code point by code point. */
public final class Folding {

    private static final int ASCII_END = 128;
    private static final int CAPITAL_I_WITH_DOT = 0x130;
    private static final int SMALL_I_WITHOUT_DOT = 0x131;

    private Folding() {
    }

    public static String fold(String text) {
        if (isPlain(text)) {
            return text;
        }
        StringBuilder folded = new StringBuilder(text.length());
        for (int i = 0; i < text.length();) {
            int c = text.codePointAt(i);
            folded.appendCodePoint(c < ASCII_END ? Character.toLowerCase(c) : fold(c));
            i += Character.charCount(c);
        }
        return folded.toString();
    }

    /** Whether folding would change nothing: the usual case, and worth seeing at once. */
    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c >= 'A' && c <= 'Z' || c > 127) {
                return false;
            }
        }
        return true;
    }

    /**
     * Simple folding is what lower case of upper case gives, but for the two Turkish letters, which it leaves alone, and
     * Cherokee, which it folds upwards.
     */
    private static int fold(int c) {
        if (c == CAPITAL_I_WITH_DOT || c == SMALL_I_WITHOUT_DOT) {
            return c;
        }
        int upper = Character.toUpperCase(c);
        boolean cherokee = Character.UnicodeScript.of(c) == Character.UnicodeScript.CHEROKEE;
        return cherokee ? upper : Character.toLowerCase(upper);
    }

    /** A distinguished name, folded and without spaces around its commas and equals signs. */
    static String foldDn(String dn) {
        return fold(dn.strip().replaceAll("\\s*([,=])\\s*", "$1"));
    }

    /** By code points, which differs from the order of Java's chars beyond the basic plane. */
    static int compare(String one, String other) {
        int[] a = one.codePoints().toArray();
        int[] b = other.codePoints().toArray();
        return java.util.Arrays.compare(a, b);
    }
}
