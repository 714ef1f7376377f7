package rivo.devices.protocol;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HexFormat;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * The secret by which a device and the server sign what they say to each other: 32 bytes that both derive by HKDF-SHA-256
 * (RFC 5869) from what their X25519 keys agree on. It is never sent and never stored. Immutable; safe for any number of
 * threads.
 *
 * <p>Both public keys are part of the derivation, so a key belongs to one device and one server key only.
 */
public final class MessageKey {

    private static final String ALGORITHM = "HmacSHA256";
    private static final int LENGTH = 32;
    private static final int TAG_LENGTH = 8;

    /** One for each thread: a new one has first to be looked for among all that Java has. */
    private static final ThreadLocal<Mac> MACS = ThreadLocal.withInitial(MessageKey::newMac);

    private final SecretKeySpec key;

    private MessageKey(byte[] bytes) {
        this.key = new SecretKeySpec(bytes, ALGORITHM);
    }

    /** The key as a device derives it. @throws IllegalArgumentException when the server's key is none */
    public static MessageKey ofDevice(AgreementKey device, String serverPublicKey) {
        return derive("rivo device 2", device.agree(serverPublicKey), device.publicKey(), serverPublicKey);
    }

    /** The same key as the server derives it. @throws IllegalArgumentException when the device's key is none */
    public static MessageKey ofServer(AgreementKey server, String devicePublicKey) {
        return derive("rivo device 2", server.agree(devicePublicKey), devicePublicKey, server.publicKey());
    }

    /** The key of one enrolment as a device derives it: nobody has it without the token, and nobody without the device's key. */
    public static MessageKey ofEnrolment(AgreementKey device, EnrolmentToken token) {
        return derive("rivo enrolment 2", both(device.agree(token.serverPublicKey()),
                token.key().agree(token.serverPublicKey())), device.publicKey(), token.serverPublicKey());
    }

    /** The same key as the server derives it. @throws IllegalArgumentException when one of the keys is none */
    public static MessageKey ofEnrolment(AgreementKey server, String devicePublicKey, String tokenPublicKey) {
        return derive("rivo enrolment 2", both(server.agree(devicePublicKey), server.agree(tokenPublicKey)),
                devicePublicKey, server.publicKey());
    }

    /** Tells apart the keys of a server that has changed its own: the first 8 hexadecimal digits of its public key's SHA-256. */
    public static String tag(String serverPublicKey) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(serverPublicKey.getBytes(StandardCharsets.US_ASCII));
            return HexFormat.of().formatHex(hash).substring(0, TAG_LENGTH);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private static byte[] both(byte[] one, byte[] other) {
        ByteArrayOutputStream both = new ByteArrayOutputStream();
        both.writeBytes(one);
        both.writeBytes(other);
        return both.toByteArray();
    }

    private static MessageKey derive(String use, byte[] agreed, String devicePublicKey, String serverPublicKey) {
        String info = use + "\n" + devicePublicKey + "\n" + serverPublicKey;
        return new MessageKey(hkdf(new byte[LENGTH], agreed, info.getBytes(StandardCharsets.US_ASCII)));
    }

    /** HKDF-SHA-256 (RFC 5869, section 2) for 32 bytes, which are one block. */
    static byte[] hkdf(byte[] salt, byte[] material, byte[] info) {
        byte[] extracted = hmac(new SecretKeySpec(salt, ALGORITHM), material);
        return hmac(new SecretKeySpec(extracted, ALGORITHM), both(info, new byte[] {1}));
    }

    /** What this key makes of a text, in base64. */
    String sign(String text) {
        return Base64.getEncoder().encodeToString(hmac(key, text.getBytes(StandardCharsets.UTF_8)));
    }

    /** Whether this key made that of the text. Takes the same time for every wrong one. */
    boolean hasSigned(String text, String value) {
        return MessageDigest.isEqual(sign(text).getBytes(StandardCharsets.US_ASCII), value.getBytes(StandardCharsets.US_ASCII));
    }

    private static byte[] hmac(SecretKeySpec key, byte[] text) {
        Mac mac = MACS.get();
        try {
            mac.init(key);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("a key of " + ALGORITHM + " is any bytes", e);
        }
        return mac.doFinal(text);
    }

    private static Mac newMac() {
        try {
            return Mac.getInstance(ALGORITHM);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has " + ALGORITHM, e);
        }
    }

    /** Never shows the key. */
    @Override
    public String toString() {
        return "a key";
    }
}
