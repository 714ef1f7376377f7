package rivo.server.web;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * A request whose body ends in a refusal where it goes on beyond what it may have, however its length was told, and breaks off where it
 * comes more slowly than it may.
 */
final class BoundedRequest extends HttpServletRequestWrapper {

    /** The body is longer than it may be. */
    static final class TooLarge extends IOException {
        TooLarge() {
            super("the body is too large");
        }
    }

    private final long most;
    private final Duration patience;
    private final int slowest;
    private @Nullable ServletInputStream in;

    /**
     * @param patience how long the body may take
     * @param slowest how many bytes a second it has to bring for going on beyond that; 0 when it may not
     */
    BoundedRequest(HttpServletRequest request, long most, Duration patience, int slowest) {
        super(request);
        this.most = most;
        this.patience = patience;
        this.slowest = slowest;
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
        if (in == null) {
            in = new Bounded(super.getInputStream());
        }
        return in;
    }

    @Override
    public BufferedReader getReader() throws IOException {
        return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
    }

    private final class Bounded extends ServletInputStream {

        private final ServletInputStream in;
        private final long begun = System.nanoTime();
        private long left = most;

        Bounded(ServletInputStream in) {
            this.in = in;
        }

        @Override
        public int read() throws IOException {
            return counted(in.read(), 1);
        }

        @Override
        public int read(byte[] to, int from, int length) throws IOException {
            int n = in.read(to, from, length);
            return counted(n, n);
        }

        private int counted(int result, int n) throws IOException {
            left -= result < 0 ? 0 : n;
            Duration over = Duration.ofNanos(System.nanoTime() - begun).minus(patience);
            if (result >= 0 && !over.isNegative() && most - left <= over.toSeconds() * slowest + (slowest == 0 ? most : 0)) {
                throw new SocketTimeoutException("the body comes too slowly");
            }
            if (left < 0) {
                throw new TooLarge();
            }
            return result;
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
