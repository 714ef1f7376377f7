package rivo.devices.protocol;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * How an answer is signed (RFC 9421 on responses): over its status, the headers that mean something to a device, the digest of
 * its body and the signature of the request that it answers (section 2.4), so that an answer cannot be changed, invented, or
 * kept and given to another question. A header is covered exactly when the answer has it.
 *
 * @param created when it was signed, by the server's clock, to the second
 * @param value 32 bytes, in base64
 */
public record AnswerSignature(KeyId keyId, Instant created, String value) {

    private static final String REQUEST = "\"signature\";req;key=\"rivo\"";

    /**
     * What is signed of an answer.
     *
     * @param etag the header, with its quotation marks; null without
     * @param cacheControl the header; null without
     * @param digest the header {@code Content-Digest}; null without a body
     * @param request the value of the request's signature, in base64
     */
    public record Answer(int status, @Nullable String etag, @Nullable String cacheControl, @Nullable String digest,
            String request) {

        private String covered() {
            return "(\"@status\"" + (etag == null ? "" : " \"etag\"") + (cacheControl == null ? "" : " \"cache-control\"")
                    + (digest == null ? "" : " \"content-digest\"") + " " + REQUEST + ")";
        }

        private String base(String parameters) {
            StringBuilder base = new StringBuilder("\"@status\": ").append(status).append('\n');
            line(base, "\"etag\"", etag);
            line(base, "\"cache-control\"", cacheControl);
            line(base, "\"content-digest\"", digest);
            line(base, REQUEST, ":" + request + ":");
            return base.append("\"@signature-params\": ").append(parameters).toString();
        }

        private static void line(StringBuilder base, String name, @Nullable String value) {
            if (value != null) {
                base.append(name).append(": ").append(value).append('\n');
            }
        }
    }

    /** Signs an answer. */
    public static AnswerSignature sign(MessageKey key, KeyId keyId, Instant now, Answer answer) {
        AnswerSignature unsigned = new AnswerSignature(keyId, now, "");
        return new AnswerSignature(keyId, now, key.sign(answer.base(unsigned.parameters(answer))));
    }

    /** Reads the two headers of an answer; empty when they are missing, or of another form. */
    public static Optional<AnswerSignature> parse(@Nullable String input, @Nullable String value, Answer answer) {
        return SignatureText.parameters(input, answer.covered()).flatMap(by -> SignatureText.value(value)
                .map(told -> new AnswerSignature(by.keyId(), by.created(), told)));
    }

    /** Whether this was made with this key for this answer. */
    public boolean isBy(MessageKey key, Answer answer) {
        return key.hasSigned(answer.base(parameters(answer)), value);
    }

    /** The header {@code Signature-Input}. */
    public String inputHeader(Answer answer) {
        return SignatureText.LABEL + "=" + parameters(answer);
    }

    /** The header {@code Signature}. */
    public String valueHeader() {
        return SignatureText.header(value);
    }

    private String parameters(Answer answer) {
        return answer.covered() + new SignatureText.Parameters(created, keyId).text();
    }
}
