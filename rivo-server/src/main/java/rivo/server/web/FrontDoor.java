package rivo.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import rivo.server.ServerSettings;

/**
 * Before everything else: the headers that every answer has, whoever writes it, and the bounds of what is read. A request whose
 * query is no UTF-8 is refused here; a body is never read beyond what its address allows, nor waited for longer than half a minute
 * (more for parts of uploads, as long as they come).
 *
 * <p><b>Call-ins and pages always find a thread.</b> Requests that change something may wait: for their body, or for the writer. At most
 * 128 of them are let in at once, 64 from one address, and at most 96 downloads of content; who comes then is told to come again. The
 * server has more threads than those together.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class FrontDoor extends OncePerRequestFilter {

    /** The largest body, in bytes, where an address says nothing else. */
    static final long LARGEST_BODY = 1 << 20;
    /** Parts of uploads have bounds of their own, and say so in words of their own. */
    private static final String PARTS = "/api/uploads/";
    private static final long LARGEST_PART = (16L << 20) + 1;
    private static final String NOTHING = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";
    private static final String TWO_YEARS = "max-age=63072000";

    static final int MOST_CHANGES = 128;
    private static final int MOST_CHANGES_OF_AN_ADDRESS = 64;
    static final int MOST_DOWNLOADS = 96;
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    /** How slowly a body may come, in bytes a second, once the patience is over. */
    private static final int SLOWEST_PART = 16 << 10;

    private final boolean secure;
    private final Semaphore changes = new Semaphore(MOST_CHANGES);
    private final Semaphore downloads = new Semaphore(MOST_DOWNLOADS);
    private final Map<String, Integer> changesByAddress = new ConcurrentHashMap<>();

    FrontDoor(ServerSettings settings) {
        this.secure = settings.secure();
    }

    @Override
    protected boolean shouldNotFilterErrorDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader("Content-Security-Policy", NOTHING);
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("X-Frame-Options", "DENY");
        response.setHeader("Referrer-Policy", "same-origin");
        response.setHeader("Cache-Control", "no-store");
        if (secure) {
            response.setHeader("Strict-Transport-Security", TWO_YEARS);
        }
        if (!isReadable(request)) {
            ProblemAnswers.write(response, HttpServletResponse.SC_BAD_REQUEST, "bad-query",
                    "The query of the address is not UTF-8, percent-encoded (RFC 3986); write it so.");
            return;
        }
        long most = isPart(request) ? LARGEST_PART : LARGEST_BODY;
        if (request.getContentLengthLong() > most) {
            drain(request, 2 * most, Duration.ofSeconds(2));
            tooLarge(response, most);
            return;
        }
        if (isRead(request)) {
            boolean content = request.getRequestURI().contains("/content/");
            within(content ? downloads : null, null, request, response, chain, most);
        } else {
            within(changes, request.getRemoteAddr(), request, response, chain, most);
        }
    }

    private static boolean isRead(HttpServletRequest request) {
        return request.getContentLengthLong() <= 0 && request.getHeader("Transfer-Encoding") == null
                && ("GET".equals(request.getMethod()) || "HEAD".equals(request.getMethod()));
    }

    private void within(@Nullable Semaphore places, @Nullable String address, HttpServletRequest request, HttpServletResponse response,
            FilterChain chain, long most) throws ServletException, IOException {
        if (places != null && !places.tryAcquire()) {
            busy(request, response);
            return;
        }
        try {
            if (address != null && changesByAddress.merge(address, 1, Integer::sum) > MOST_CHANGES_OF_AN_ADDRESS) {
                busy(request, response);
            } else {
                chain.doFilter(new BoundedRequest(request, most, PATIENCE, isPart(request) ? SLOWEST_PART : 0), response);
            }
        } catch (BoundedRequest.TooLarge e) {
            tooLarge(response, most);
        } finally {
            if (address != null) {
                changesByAddress.computeIfPresent(address, (a, n) -> n > 1 ? n - 1 : null);
            }
            if (places != null) {
                places.release();
            }
        }
    }

    private static void busy(HttpServletRequest request, HttpServletResponse response) throws IOException {
        drain(request, LARGEST_BODY, Duration.ofMillis(100));
        response.setHeader("Retry-After", "1");
        ProblemAnswers.write(response, HttpServletResponse.SC_SERVICE_UNAVAILABLE, "busy",
                "Too many requests are under way; nothing was changed. Try again in a moment.");
    }

    /** Takes what has come already, so that the answer is not lost when the connection is closed; waits for no more than that. */
    private static void drain(HttpServletRequest request, long most, Duration patience) throws IOException {
        InputStream in = request.getInputStream();
        byte[] buffer = new byte[1 << 16];
        long left = Math.min(most, Math.max(0, request.getContentLengthLong()));
        long end = System.nanoTime() + patience.toNanos();
        while (left > 0 && System.nanoTime() < end) {
            int there = in.available();
            if (there > 0) {
                left -= Math.max(1, in.read(buffer, 0, (int) Math.min(Math.min(there, left), buffer.length)));
            } else {
                LockSupport.parkNanos(Duration.ofMillis(5).toNanos());
            }
        }
    }

    /** Tomcat parses parameters when they are first asked for, and throws what nobody expects there. */
    private static boolean isReadable(HttpServletRequest request) {
        if (request.getQueryString() == null) {
            return true;
        }
        try {
            String query = request.getQueryString();
            return query.chars().allMatch(c -> c > ' ' && c < 0x7f) && QueryText.isUtf8(query);
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static boolean isPart(HttpServletRequest request) {
        return "PUT".equals(request.getMethod()) && request.getRequestURI().startsWith(PARTS);
    }

    private static void tooLarge(HttpServletResponse response, long most) throws IOException {
        response.setHeader("Connection", "close");
        ProblemAnswers.write(response, HttpServletResponse.SC_REQUEST_ENTITY_TOO_LARGE, "too-large",
                "A body has at most " + (most >> 20) + " MiB here; send less at a time.");
    }
}
