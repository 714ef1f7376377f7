package rivo.formats;

import java.util.Comparator;

/** The order of Unicode code points, which differs from that of Java's chars beyond the basic plane. */
final class CodePoints {

    static final Comparator<String> ORDER = CodePoints::compare;

    private CodePoints() {
    }

    private static int compare(String one, String other) {
        int shorter = Math.min(one.length(), other.length());
        for (int i = 0; i < shorter; i++) {
            char a = one.charAt(i);
            char b = other.charAt(i);
            if (a != b) {
                return Character.isSurrogate(a) == Character.isSurrogate(b) ? Character.compare(a, b)
                        : Character.isSurrogate(a) ? 1 : -1;
            }
        }
        return Integer.compare(one.length(), other.length());
    }
}
