package rivo.core.estate;

import java.util.Comparator;

/** Texts by their code points, which differs from the order of Java's chars beyond the basic plane. */
public final class CodePointOrder {

    public static final Comparator<String> INSTANCE = CodePointOrder::compare;

    private CodePointOrder() {
    }

    private static int compare(String one, String other) {
        int n = Math.min(one.length(), other.length());
        for (int i = 0; i < n; i++) {
            char a = one.charAt(i);
            char b = other.charAt(i);
            if (a != b) {
                boolean surrogates = Character.isSurrogate(a) != Character.isSurrogate(b);
                return surrogates ? Boolean.compare(Character.isSurrogate(a), Character.isSurrogate(b))
                        : Character.compare(a, b);
            }
        }
        return Integer.compare(one.length(), other.length());
    }
}
