package rivo.devices.protocol;

import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.PublicKey;
import java.security.SecureRandom;
import java.security.interfaces.XECPrivateKey;
import java.security.spec.NamedParameterSpec;
import java.security.spec.X509EncodedKeySpec;
import java.security.spec.XECPrivateKeySpec;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;
import javax.crypto.KeyAgreement;

/**
 * A private key for X25519 (RFC 7748), with which two sides derive the same secret from each other's public keys. Public
 * and private keys are 32 bytes, written in base64url without padding (RFC 4648, section 5): 43 characters. Immutable; safe
 * for any number of threads. One agreement takes about a tenth of a millisecond.
 */
public final class AgreementKey {

    /** How many characters a key has when it is written. */
    public static final int TEXT_LENGTH = 43;

    private static final int BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();
    /** What comes before the 32 bytes in a SubjectPublicKeyInfo of X25519 (RFC 8410, section 4). */
    private static final byte[] PUBLIC_PREFIX = HexFormat.of().parseHex("302a300506032b656e032100");
    /** The base point (RFC 7748, section 4.1). */
    private static final byte[] BASE = Arrays.copyOf(new byte[] {9}, BYTES);

    private final byte[] secret;
    private final String publicKey;

    private AgreementKey(byte[] secret) {
        this.secret = secret;
        this.publicKey = text(agree(secret, BASE));
    }

    public static AgreementKey random() {
        byte[] secret = new byte[BYTES];
        RANDOM.nextBytes(secret);
        return new AgreementKey(secret);
    }

    /** @throws IllegalArgumentException when the text is not a key of 32 bytes */
    public static AgreementKey of(String text) {
        return new AgreementKey(bytes(text));
    }

    public String publicKey() {
        return publicKey;
    }

    /** The private key itself, for the place where it is kept. */
    public String secretText() {
        return text(secret);
    }

    /**
     * What this key and the other side's public key agree on: 32 bytes that only the two can know.
     *
     * @throws IllegalArgumentException when the text is no public key, or one that would make every secret the same
     *     (RFC 7748, section 6.1)
     */
    byte[] agree(String otherPublicKey) {
        return agree(secret, bytes(otherPublicKey));
    }

    /** Whether a text can be a public key. */
    public static boolean isKey(String text) {
        try {
            return bytes(text).length == BYTES;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static byte[] agree(byte[] secret, byte[] publicKey) {
        try {
            KeyFactory factory = KeyFactory.getInstance("X25519");
            XECPrivateKey own = (XECPrivateKey) factory
                    .generatePrivate(new XECPrivateKeySpec(NamedParameterSpec.X25519, secret));
            byte[] encoded = Arrays.copyOf(PUBLIC_PREFIX, PUBLIC_PREFIX.length + BYTES);
            System.arraycopy(publicKey, 0, encoded, PUBLIC_PREFIX.length, BYTES);
            PublicKey other = factory.generatePublic(new X509EncodedKeySpec(encoded));
            KeyAgreement agreement = KeyAgreement.getInstance("X25519");
            agreement.init(own);
            agreement.doPhase(other, true);
            return agreement.generateSecret();
        } catch (GeneralSecurityException e) {
            throw new IllegalArgumentException("this is no public key that may be used", e);
        }
    }

    private static String text(byte[] key) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(key);
    }

    private static byte[] bytes(String text) {
        byte[] key = text.length() == TEXT_LENGTH ? Base64.getUrlDecoder().decode(text) : new byte[0];
        if (key.length != BYTES) {
            throw new IllegalArgumentException("a key is 32 bytes in base64url, which is 43 characters");
        }
        return key;
    }

    /** Never shows the private key. */
    @Override
    public String toString() {
        return "the private key of " + publicKey;
    }
}
