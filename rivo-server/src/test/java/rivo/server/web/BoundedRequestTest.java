package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;

class BoundedRequestTest {

    /** A body that gives so much, a bit after a pause. */
    private static MockHttpServletRequest dripping(int bytes, int atOnce, long pauseMillis) {
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
        long begun = System.nanoTime();
        assertThatThrownBy(() -> read(dripping(100_000, 1, 20), 1 << 20, 0)).isInstanceOf(SocketTimeoutException.class);
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).isLessThan(Duration.ofSeconds(2));
    }

    @Test
    void whatMayTakeLongerGoesOnAsLongAsItComes() throws IOException {
        assertThat(read(dripping(40_000, 1000, 20), 1 << 20, 10_000)).as("over its patience, fast enough").hasSize(40_000);
    }
}
