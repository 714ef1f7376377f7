package rivo.server.web;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicBoolean;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.apache.tomcat.util.net.ApplicationBufferHandler;

/**
 * Around every request, before and after anything else: the headers that every answer has, and the end of bodies that nobody has read.
 *
 * <p><b>Unread bodies.</b> Tomcat would wait for the rest of a body before it takes the next request of a connection, and so would a
 * thread for whoever sends none. Instead the connection is closed. Before that the rest is taken for two seconds, so that a client which
 * is still sending finds the answer rather than a broken connection; but for no more than a few clients at once, since one that stalls
 * holds its thread until the connector's own patience ends.
 */
final class EveryAnswer extends ValveBase {

    private static final String NOTHING = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";
    private static final String TWO_YEARS = "max-age=63072000";
    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final int MOST_AT_ONCE = 16;
    private static final long MOST_TAKEN = 16L << 20;

    private final Semaphore taking = new Semaphore(MOST_AT_ONCE);
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
            response.setHeader("Connection", "close");
            response.finishResponse();
            leave(request);
        }
    }

    private static boolean isRead(Request request) {
        AtomicBoolean read = new AtomicBoolean();
        request.getCoyoteRequest().action(ActionCode.REQUEST_BODY_FULLY_READ, read);
        return read.get();
    }

    private void leave(Request request) {
        if (taking.tryAcquire()) {
            try {
                takeTheRest(request);
            } catch (IOException | IllegalStateException e) {
                // It broke off, which is an end as well.
                containerLog.debug("a body that nobody wanted broke off", e);
            } finally {
                taking.release();
            }
        }
        if (!isRead(request)) {
            request.getCoyoteRequest().action(ActionCode.DISABLE_SWALLOW_INPUT, null);
        }
    }

    /** By the connector itself, since the request's own stream ends with its answer. */
    private static void takeTheRest(Request request) throws IOException {
        Thrown thrown = new Thrown();
        long left = MOST_TAKEN;
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (left > 0 && System.nanoTime() < end && !isRead(request)) {
            int n = request.getCoyoteRequest().doRead(thrown);
            if (n < 0) {
                return;
            }
            left -= n;
        }
    }

    /** Where bytes go that nobody looks at. */
    private static final class Thrown implements ApplicationBufferHandler {

        private ByteBuffer buffer = ByteBuffer.allocate(0);

        @Override
        public void setByteBuffer(ByteBuffer newer) {
            buffer = newer;
        }

        @Override
        public ByteBuffer getByteBuffer() {
            return buffer;
        }

        @Override
        public void expand(int size) {
            // Whatever has come is as much as is taken at once.
        }
    }
}
