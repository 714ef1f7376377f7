package rivo.formats.installer;

import java.io.IOException;
import java.io.InputStream;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;

/** Digests of what is read part by part. */
final class Digests {

    private Digests() {
    }

    /** @param algorithm in Java's words */
    static MessageDigest of(String algorithm) throws IOException {
        try {
            return MessageDigest.getInstance(algorithm);
        } catch (GeneralSecurityException e) {
            throw new IOException("there is no " + algorithm, e);
        }
    }

    /** Adds all that the stream still has. */
    static void add(InputStream in, MessageDigest digest) throws IOException {
        byte[] part = new byte[1 << 16];
        for (int n = in.read(part); n >= 0; n = in.read(part)) {
            digest.update(part, 0, n);
        }
    }
}
