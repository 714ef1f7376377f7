package rivo.devices.protocol;

import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
    private static final Pattern INPUT = Pattern.compile("rivo=\\(\"@method\" \"@path\"(?<body> \"content-digest\")?\\)"
            + SignatureText.PARAMETERS);

    /** The header {@code Signature-Input}. */
    public String inputHeader(boolean hasBody) {
        return SignatureText.LABEL + "=" + parameters(hasBody);
    }

    /** The header {@code Signature}. */
    public String valueHeader() {
        return SignatureText.header(value);
    }

    private String parameters(boolean hasBody) {
        return (hasBody ? WITH_BODY : PLAIN) + SignatureText.parameters(created, keyId);
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
        Matcher in = INPUT.matcher(input == null ? "" : input);
        Optional<String> told = SignatureText.value(value);
        if (!in.matches() || told.isEmpty() || (in.group("body") != null) != hasBody) {
            return Optional.empty();
        }
        return KeyId.parse(in.group("key")).map(id -> new Signature(id, SignatureText.created(in), told.get()));
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
