package rivo.server.web;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;

/**
 * Around every request, before and after anything else: the headers that every answer has, and the end of bodies that nobody has read.
 *
 * <p><b>Unread bodies.</b> Tomcat would wait for the rest of a body before it takes the next request of a connection, and so would a
 * thread for whoever sends none. What has come already is taken, for a moment, so that closing the connection does not cost the client
 * the answer; then the connection is closed.
 */
final class EveryAnswer extends ValveBase {

    private static final String NOTHING = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";
    private static final String TWO_YEARS = "max-age=63072000";
    private static final Duration PATIENCE = Duration.ofMillis(300);
    private static final long MOST_TAKEN = 16L << 20;

    private final boolean secure;

    EveryAnswer(boolean secure) {
        super(true);
        this.secure = secure;
    }

    @Override
    public void invoke(Request request, Response response) throws IOException, ServletException {
        response.setHeader("Content-Security-Policy", NOTHING);
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("X-Frame-Options", "DENY");
        response.setHeader("Referrer-Policy", "same-origin");
        response.setHeader("Cache-Control", "no-store");
        if (secure) {
            response.setHeader("Strict-Transport-Security", TWO_YEARS);
        }
        getNext().invoke(request, response);
        if (!request.isAsync() && !isRead(request)) {
            leave(request);
        }
    }

    private static boolean isRead(Request request) {
        AtomicBoolean read = new AtomicBoolean();
        request.getCoyoteRequest().action(ActionCode.REQUEST_BODY_FULLY_READ, read);
        return read.get();
    }

    private static void leave(Request request) {
        try {
            takeWhatHasCome(request);
        } catch (IOException | IllegalStateException e) {
            // It broke off, which is an end as well.
            LockSupport.parkNanos(0);
        }
        if (!isRead(request)) {
            request.getCoyoteRequest().action(ActionCode.DISABLE_SWALLOW_INPUT, null);
        }
    }

    private static void takeWhatHasCome(Request request) throws IOException {
        InputStream in = request.getInputStream();
        byte[] buffer = new byte[1 << 14];
        long taken = 0;
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!isRead(request) && taken < MOST_TAKEN && System.nanoTime() < end) {
            int there = in.available();
            if (there > 0) {
                int n = in.read(buffer, 0, Math.min(there, buffer.length));
                taken += Math.max(1, n);
            } else {
                LockSupport.parkNanos(Duration.ofMillis(2).toNanos());
            }
        }
    }
}
