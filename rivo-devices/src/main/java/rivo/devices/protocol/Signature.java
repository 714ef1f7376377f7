package rivo.devices.protocol;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;

/**
 * HTTP Message Signatures (RFC 9421) with {@code hmac-sha256}, over the method, the path and, where there is a body,
 * its digest (RFC 9530). One fixed set of covered components is taken, so that nothing can be left out of a signature.
 *
 * @param keyId the id of the device
 * @param created when it was signed, to the second
 * @param value 32 bytes, in base64
 */
public record Signature(String keyId, Instant created, String value) {

    private static final String PLAIN = "(\"@method\" \"@path\")";
    private static final String WITH_BODY = "(\"@method\" \"@path\" \"content-digest\")";
    private static final Pattern INPUT = Pattern.compile("rivo=\\(\"@method\" \"@path\"(?<body> \"content-digest\")?\\)"
            + ";created=(?<created>[0-9]{1,12});keyid=\"(?<key>[!-~&&[^\"\\\\]]{1,200})\";alg=\"hmac-sha256\"");
    private static final Pattern VALUE = Pattern.compile("rivo=:(?<value>[A-Za-z0-9+/]{43}=):");

    /** The header {@code Signature-Input}. */
    public String inputHeader(boolean hasBody) {
        return "rivo=" + parameters(hasBody);
    }

    /** The header {@code Signature}. */
    public String valueHeader() {
        return "rivo=:" + value + ":";
    }

    private String parameters(boolean hasBody) {
        return (hasBody ? WITH_BODY : PLAIN) + ";created=" + created.getEpochSecond() + ";keyid=\"" + keyId
                + "\";alg=\"hmac-sha256\"";
    }

    /** The header {@code Content-Digest} of a body. */
    public static String digest(byte[] body) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(body);
            return "sha-256=:" + Base64.getEncoder().encodeToString(hash) + ":";
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** Signs a request; {@code digest} is the header {@code Content-Digest}, null without a body. */
    public static Signature sign(byte[] key, String keyId, Instant now, String method, String path,
            @Nullable String digest) {
        Signature unsigned = new Signature(keyId, now, "");
        return new Signature(keyId, now, Base64.getEncoder().encodeToString(
                unsigned.mac(key, method, path, digest)));
    }

    /** Reads the two headers; empty when they are missing, or not of the one form that is taken. */
    public static Optional<Signature> parse(@Nullable String input, @Nullable String value, boolean hasBody) {
        Matcher in = INPUT.matcher(input == null ? "" : input);
        Matcher out = VALUE.matcher(value == null ? "" : value);
        if (!in.matches() || !out.matches() || (in.group("body") != null) != hasBody) {
            return Optional.empty();
        }
        return Optional.of(new Signature(in.group("key"),
                Instant.ofEpochSecond(Long.parseLong(in.group("created"))), out.group("value")));
    }

    /** Whether this was made with this key for this request. Takes the same time for every wrong one. */
    public boolean isBy(byte[] key, String method, String path, @Nullable String digest) {
        return MessageDigest.isEqual(mac(key, method, path, digest), Base64.getDecoder().decode(value));
    }

    private byte[] mac(byte[] key, String method, String path, @Nullable String digest) {
        StringBuilder base = new StringBuilder();
        base.append("\"@method\": ").append(method).append('\n');
        base.append("\"@path\": ").append(path).append('\n');
        if (digest != null) {
            base.append("\"content-digest\": ").append(digest).append('\n');
        }
        base.append("\"@signature-params\": ").append(parameters(digest != null));
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            return mac.doFinal(base.toString().getBytes(StandardCharsets.UTF_8));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has HmacSHA256", e);
        }
    }
}
