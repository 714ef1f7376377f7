package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.DelegatingServletInputStream;
import rivo.devices.protocol.Signature;
import rivo.server.web.ApiException;

class DeviceRequestTest {

    /** @param told the length that the header says; -1 without one */
    private static HttpServletRequest request(byte[] body, long told) throws IOException {
        HttpServletRequest request = mock(HttpServletRequest.class);
        when(request.getContentLengthLong()).thenReturn(told);
        when(request.getInputStream()).thenReturn(new DelegatingServletInputStream(new ByteArrayInputStream(body)));
        return request;
    }

    @Test
    void aBodyOfExactlyTheLimitIsReadAndCanBeReadAgain() throws IOException {
        for (long told : new long[] {4, -1}) {
            DeviceRequest read = DeviceRequest.read(request(new byte[] {1, 2, 3, 4}, told), 4);
            assertThat(read.length()).isEqualTo(4);
            assertThat(read.digest()).isEqualTo(Signature.digest(new byte[] {1, 2, 3, 4}));
            ServletInputStream again = read.getInputStream();
            assertThat(again.isReady()).isTrue();
            assertThat(again.isFinished()).isFalse();
            assertThat(again.read()).isEqualTo(1);
            assertThat(again.readAllBytes()).containsExactly(2, 3, 4);
            assertThat(again.isFinished()).isTrue();
            assertThat(read.getInputStream().readAllBytes()).as("from the beginning").hasSize(4);
        }
    }

    @Test
    void oneByteMoreIsRefusedWhateverTheHeaderSays() throws IOException {
        for (long told : new long[] {5, -1, 4}) {
            HttpServletRequest request = request(new byte[5], told);
            assertThatThrownBy(() -> DeviceRequest.read(request, 4)).as("told " + told).isInstanceOf(ApiException.class)
                    .hasMessageContaining("at most");
        }
        HttpServletRequest lying = request(new byte[1], 1L << 40);
        assertThatThrownBy(() -> DeviceRequest.read(lying, 4)).as("before a byte of it is read").isInstanceOf(ApiException.class);
    }
}
