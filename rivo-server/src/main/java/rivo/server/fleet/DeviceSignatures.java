package rivo.server.fleet;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;
import rivo.devices.protocol.Signature;
import rivo.server.mirror.Mirror;
import rivo.server.mirror.Mirrors;
import rivo.server.web.ApiException;

/**
 * Checks what devices sign: that the body is what its digest says, that the signature is of an enrolled device's key and
 * no older than five minutes, and that the address is the device's own. What is left knows who asks.
 */
@Component
class DeviceSignatures extends OncePerRequestFilter {

    /** The request attribute that holds the id of the device that signed. */
    static final String DEVICE = "rivo.device";
    /** The request attribute that holds the id of the mirror whose key was given, in place of a signature. */
    static final String MIRROR = "rivo.mirror";

    private static final String BEARER = "Bearer ";

    private static final String PREFIX = "/device/v1/";
    private static final String DEVICES = PREFIX + "devices/";
    private static final Duration CLOCKS_APART = Duration.ofMinutes(5);
    private static final int LARGEST_BODY = 1 << 20;

    private final Enrolments enrolments;
    private final Mirrors mirrors;
    private final Clock clock;
    private final HandlerExceptionResolver problems;

    DeviceSignatures(Enrolments enrolments, Mirrors mirrors, Clock clock,
            @Qualifier("handlerExceptionResolver") HandlerExceptionResolver problems) {
        this.enrolments = enrolments;
        this.mirrors = mirrors;
        this.clock = clock;
        this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith(PREFIX);
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        HttpServletRequest checked;
        try {
            byte[] body = body(request);
            Mirror mirror = mirror(request);
            if (mirror != null) {
                request.setAttribute(MIRROR, mirror.id());
            } else if (!request.getRequestURI().equals(PREFIX + "enrolments")) {
                String device = signer(request, body);
                ownAddress(request.getRequestURI(), device);
                request.setAttribute(DEVICE, device);
            }
            checked = new WithBody(request, body);
        } catch (ApiException e) {
            problems.resolveException(request, response, null, e);
            return;
        }
        chain.doFilter(checked, response);
    }

    /** The mirror that asks; it may have content and nothing else. Its key is a bearer token (RFC 6750). */
    private @Nullable Mirror mirror(HttpServletRequest request) {
        String authorization = request.getHeader("Authorization");
        boolean content = request.getRequestURI().startsWith(PREFIX + "content/")
                && ("GET".equals(request.getMethod()) || "HEAD".equals(request.getMethod()));
        if (!content || authorization == null || !authorization.startsWith(BEARER)) {
            return null;
        }
        Mirror mirror = mirrors.withKey(authorization.substring(BEARER.length()).strip());
        if (mirror == null) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "unknown-mirror",
                    "The key is that of no mirror. Give the mirror its configuration anew.");
        }
        return mirror;
    }

    private static byte[] body(HttpServletRequest request) throws IOException {
        byte[] body = request.getInputStream().readNBytes(LARGEST_BODY + 1);
        if (body.length > LARGEST_BODY) {
            throw ApiException.refused(HttpStatus.CONTENT_TOO_LARGE, "too-large",
                    "A message has at most 1 MiB; send less at a time.");
        }
        return body;
    }

    private String signer(HttpServletRequest request, byte[] body) {
        boolean hasBody = body.length > 0;
        Signature signature = Signature.parse(request.getHeader("Signature-Input"), request.getHeader("Signature"),
                hasBody).orElseThrow(() -> ApiException.refused(HttpStatus.UNAUTHORIZED, "unsigned",
                        "The request is not signed as the device protocol says."));
        String digest = hasBody ? request.getHeader("Content-Digest") : null;
        if (hasBody && !Signature.digest(body).equals(digest)) {
            throw ApiException.refused(HttpStatus.BAD_REQUEST, "wrong-digest",
                    "The body is not what its Content-Digest says; send it again.");
        }
        byte[] key = enrolments.key(signature.keyId()).orElse(null);
        if (key == null || !signature.isBy(key, request.getMethod(), request.getRequestURI(), digest)) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "bad-signature",
                    "The signature is not by the key of an enrolled device. Enrol with a new token.");
        }
        if (Duration.between(signature.created(), clock.instant()).abs().compareTo(CLOCKS_APART) > 0) {
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "old-signature",
                    "The signature was made more than five minutes from now; set the device's clock.");
        }
        return signature.keyId();
    }

    private static void ownAddress(String path, String device) {
        if (path.startsWith(DEVICES) && !path.startsWith(DEVICES + device + "/")) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-yours",
                    "A device may speak for itself only; use the address with its own id.");
        }
    }

    /** The request with its body read already. */
    private static final class WithBody extends HttpServletRequestWrapper {

        private final byte[] body;

        WithBody(HttpServletRequest request, byte[] body) {
            super(request);
            this.body = body;
        }

        @Override
        public ServletInputStream getInputStream() {
            ByteArrayInputStream in = new ByteArrayInputStream(body);
            return new ServletInputStream() {
                @Override
                public int read() {
                    return in.read();
                }

                @Override
                public boolean isFinished() {
                    return in.available() == 0;
                }

                @Override
                public boolean isReady() {
                    return true;
                }

                @Override
                public void setReadListener(@Nullable ReadListener listener) {
                    throw new IllegalStateException("the body has been read already");
                }
            };
        }
    }
}
