package rivo.server.change;

import java.security.SecureRandom;

/** Ids for what is made while drafting: nobody else's can be the same. Safe for any number of threads. */
final class Ids {

    private static final String DIGITS = "0123456789abcdefghjkmnpqrstvwxyz";
    private static final int LENGTH = 10;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Ids() {
    }

    /** So many random bits: 50. */
    static String random(String prefix) {
        StringBuilder id = new StringBuilder(prefix);
        for (int i = 0; i < LENGTH; i++) {
            id.append(DIGITS.charAt(RANDOM.nextInt(DIGITS.length())));
        }
        return id.toString();
    }
}
