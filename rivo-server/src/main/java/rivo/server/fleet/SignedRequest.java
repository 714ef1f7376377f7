package rivo.server.fleet;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.devices.protocol.Signature;
import rivo.server.web.ApiException;

/** A request of the device protocol whose body is what its digest says. Whose signature it carries is not known yet. */
final class SignedRequest {

    /** How far a device's clock may be from the server's, and so how long a request that somebody saw can be repeated. */
    static final Duration CLOCKS_APART = Duration.ofSeconds(60);

    private final Signature signature;
    private final String method;
    private final String path;
    private final @Nullable String digest;

    private SignedRequest(Signature signature, String method, String path, @Nullable String digest) {
        this.signature = signature;
        this.method = method;
        this.path = path;
        this.digest = digest;
    }

    /** @throws ApiException when it carries no signature, or the body has been changed */
    static SignedRequest of(HttpServletRequest request, int bodyLength, @Nullable String digestOfBody) {
        boolean hasBody = bodyLength > 0;
        Signature signature = Signature.parse(request.getHeader("Signature-Input"), request.getHeader("Signature"), hasBody)
                .orElseThrow(() -> ApiException.refused(HttpStatus.UNAUTHORIZED, "unsigned",
                        "The request is not signed as the device protocol says."));
        String digest = hasBody ? request.getHeader("Content-Digest") : null;
        if (hasBody && !String.valueOf(digestOfBody).equals(digest)) {
            throw ApiException.refused(HttpStatus.BAD_REQUEST, "wrong-digest",
                    "The body is not what its Content-Digest says; send it again.");
        }
        return new SignedRequest(signature, request.getMethod(), request.getRequestURI(), digest);
    }

    KeyId keyId() {
        return signature.keyId();
    }

    /** Ties an answer to this very request. */
    String value() {
        return signature.value();
    }

    boolean isBy(MessageKey key) {
        return signature.isBy(key, method, path, digest);
    }

    /** @throws ApiException when it was signed too long ago, or too far in the future */
    void checkTime(Clock clock) {
        Instant now = clock.instant();
        Duration off = Duration.between(now, signature.created());
        if (off.abs().compareTo(CLOCKS_APART) > 0) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "old-signature", "The device's clock is " + off.abs().toSeconds()
                    + " s " + (off.isNegative() ? "behind" : "ahead of") + " the server's, or the request has been repeated. Sign "
                    + "it again by the time at which this answer was signed.");
        }
    }
}
