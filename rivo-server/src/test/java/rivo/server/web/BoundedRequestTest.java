package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;

class BoundedRequestTest {

    private static MockHttpServletRequest dripping(int bytes, int atOnce, long pauseMillis) {
        return dripping(bytes, atOnce, pauseMillis, new AtomicInteger());
    }

    /** A body that gives so much, a bit after a pause, and counts how often. */
    private static MockHttpServletRequest dripping(int bytes, int atOnce, long pauseMillis, AtomicInteger gave) {
        return new MockHttpServletRequest() {
            private int left = bytes;

            @Override
            public ServletInputStream getInputStream() {
                return new ServletInputStream() {
                    @Override
                    public int read() {
                        return left-- > 0 ? 'x' : -1;
                    }

                    @Override
                    public int read(byte[] to, int from, int length) throws IOException {
                        if (length == 0) {
                            return 0;
                        }
                        try {
                            Thread.sleep(pauseMillis);
                        } catch (InterruptedException e) {
                            throw new IOException(e);
                        }
                        int n = Math.min(Math.min(length, atOnce), left);
                        left -= n;
                        gave.incrementAndGet();
                        return n == 0 ? -1 : n;
                    }

                    @Override
                    public boolean isFinished() {
                        return left == 0;
                    }

                    @Override
                    public boolean isReady() {
                        return true;
                    }

                    @Override
                    public void setReadListener(ReadListener listener) {
                        throw new IllegalStateException();
                    }
                };
            }
        };
    }

    private static byte[] read(MockHttpServletRequest request, long most, int slowest) throws IOException {
        return new BoundedRequest(request, most, Duration.ofMillis(300), slowest).getInputStream().readAllBytes();
    }

    @Test
    void aBodyOfTheVeryLengthIsTakenAndOneByteMoreIsNot() throws IOException {
        assertThat(read(dripping(1000, 1000, 0), 1000, 0)).hasSize(1000);
        assertThatThrownBy(() -> read(dripping(1001, 1000, 0), 1000, 0)).isInstanceOf(BoundedRequest.TooLarge.class);
        assertThatThrownBy(() -> new BoundedRequest(dripping(5, 1, 0), 0, Duration.ofSeconds(1), 0).getReader().read())
                .isInstanceOf(BoundedRequest.TooLarge.class);
    }

    @Test
    void aBodyThatDripsIsBrokenOff() {
        AtomicInteger reads = new AtomicInteger();
        assertThatThrownBy(() -> read(dripping(100_000, 1, 20, reads), 1 << 20, 0)).isInstanceOf(SocketTimeoutException.class);
        assertThat(reads.get()).as("of 20 ms at least, within 300").isBetween(1, 16);
    }

    @Test
    void whatMayTakeLongerGoesOnAsLongAsItComes() throws IOException {
        assertThat(read(dripping(40_000, 1000, 20), 1 << 20, 10_000)).as("over its patience, fast enough").hasSize(40_000);
    }
}
