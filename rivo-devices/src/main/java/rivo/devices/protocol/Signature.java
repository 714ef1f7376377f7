package rivo.devices.protocol;

import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * How a request is signed: HTTP Message Signatures (RFC 9421) with {@code hmac-sha256}, over the method, the path and, where
 * there is a body, its digest (RFC 9530). One fixed set of covered components is taken, so that nothing can be left out of a
 * signature.
 *
 * @param created when it was signed, to the second
 * @param value 32 bytes, in base64
 */
public record Signature(KeyId keyId, Instant created, String value) {

    private static final String PLAIN = "(\"@method\" \"@path\")";
    private static final String WITH_BODY = "(\"@method\" \"@path\" \"content-digest\")";

    /** The header {@code Signature-Input}. */
    public String inputHeader(boolean hasBody) {
        return SignatureText.LABEL + "=" + parameters(hasBody);
    }

    /** The header {@code Signature}. */
    public String valueHeader() {
        return SignatureText.header(value);
    }

    private String parameters(boolean hasBody) {
        return covered(hasBody) + new SignatureText.Parameters(created, keyId).text();
    }

    private static String covered(boolean hasBody) {
        return hasBody ? WITH_BODY : PLAIN;
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
    public static Signature sign(MessageKey key, KeyId keyId, Instant now, String method, String path,
            @Nullable String digest) {
        Signature unsigned = new Signature(keyId, now, "");
        return new Signature(keyId, now, key.sign(unsigned.base(method, path, digest)));
    }

    /** Reads the two headers; empty when they are missing, or not of the one form that is taken. */
    public static Optional<Signature> parse(@Nullable String input, @Nullable String value, boolean hasBody) {
        return SignatureText.parameters(input, covered(hasBody)).flatMap(by -> SignatureText.value(value)
                .map(told -> new Signature(by.keyId(), by.created(), told)));
    }

    /** Whether this was made with this key for this request. Takes the same time for every wrong one. */
    public boolean isBy(MessageKey key, String method, String path, @Nullable String digest) {
        return key.hasSigned(base(method, path, digest), value);
    }

    private String base(String method, String path, @Nullable String digest) {
        StringBuilder base = new StringBuilder();
        base.append("\"@method\": ").append(method).append('\n');
        base.append("\"@path\": ").append(path).append('\n');
        if (digest != null) {
            base.append("\"content-digest\": ").append(digest).append('\n');
        }
        return base.append("\"@signature-params\": ").append(parameters(digest != null)).toString();
    }
}
