package rivo.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import rivo.server.ServerSettings;

/**
 * Before every filter: the bounds of what is read. A request whose query is no UTF-8 is refused here; a body is never read beyond what
 * its address allows, nor waited for longer than half a minute (more for parts of uploads, as long as they come).
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

    static final int MOST_CHANGES = 128;
    private static final int MOST_CHANGES_OF_AN_ADDRESS = 64;
    static final int MOST_DOWNLOADS = 96;
    /** How slowly a body may come, in bytes a second, once the patience is over. */
    private static final int SLOWEST_PART = 16 << 10;

    private final Duration patience;
    private final Semaphore changes = new Semaphore(MOST_CHANGES);
    private final Semaphore downloads = new Semaphore(MOST_DOWNLOADS);
    private final Map<String, Integer> changesByAddress = new ConcurrentHashMap<>();

    FrontDoor(ServerSettings settings) {
        this.patience = settings.clientPatience();
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!isReadable(request)) {
            ProblemAnswers.write(response, HttpServletResponse.SC_BAD_REQUEST, "bad-query",
                    "The query of the address is not UTF-8, percent-encoded (RFC 3986); write it so.");
            return;
        }
        if (isForm(request)) {
            ProblemAnswers.write(response, HttpServletResponse.SC_UNSUPPORTED_MEDIA_TYPE, "wrong-type",
                    "No address takes a form; send application/json, or the bytes where an address asks for them.");
            return;
        }
        long most = isPart(request) ? LARGEST_PART : LARGEST_BODY;
        if (request.getContentLengthLong() > most) {
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
            busy(response);
            return;
        }
        try {
            if (address != null && changesByAddress.merge(address, 1, Integer::sum) > MOST_CHANGES_OF_AN_ADDRESS) {
                busy(response);
            } else {
                chain.doFilter(new BoundedRequest(request, most, patience, isPart(request) ? SLOWEST_PART : 0), response);
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

    private static void busy(HttpServletResponse response) throws IOException {
        response.setHeader("Retry-After", "1");
        ProblemAnswers.write(response, HttpServletResponse.SC_SERVICE_UNAVAILABLE, "busy",
                "Too many requests are under way; nothing was changed. Try again in a moment.");
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

    /** Tomcat would read one as parameters, whoever asks for whatever. */
    private static boolean isForm(HttpServletRequest request) {
        String type = request.getContentType() == null ? "" : request.getContentType().strip().toLowerCase(Locale.ROOT);
        return type.startsWith("application/x-www-form-urlencoded") || type.startsWith("multipart/");
    }

    private static boolean isPart(HttpServletRequest request) {
        return "PUT".equals(request.getMethod()) && request.getRequestURI().startsWith(PARTS);
    }

    private static void tooLarge(HttpServletResponse response, long most) throws IOException {
        ProblemAnswers.write(response, HttpServletResponse.SC_REQUEST_ENTITY_TOO_LARGE, "too-large",
                "A body has at most " + (most >> 20) + " MiB here; send less at a time.");
    }
}
