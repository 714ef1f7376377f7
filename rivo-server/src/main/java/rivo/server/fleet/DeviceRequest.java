package rivo.server.fleet;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.util.WebUtils;
import rivo.devices.protocol.Signature;
import rivo.server.web.ApiException;

/** A request whose body has been read already, so that it can be both looked at and parsed. */
final class DeviceRequest extends HttpServletRequestWrapper {

    private final byte[] body;

    private DeviceRequest(HttpServletRequest request, byte[] body) {
        super(request);
        this.body = body;
    }

    /** @throws ApiException when there is more than {@code most} bytes of it; no more than that is read */
    static DeviceRequest read(HttpServletRequest request, int most) throws IOException {
        byte[] body = request.getContentLengthLong() > most ? new byte[most + 1]
                : request.getInputStream().readNBytes(most + 1);
        if (body.length > most) {
            throw ApiException.refused(HttpStatus.CONTENT_TOO_LARGE, "too-large",
                    "A message has at most " + (most >> 20) + " MiB; send less at a time.");
        }
        return new DeviceRequest(request, body);
    }

    /** The one that the gate has read. @throws IllegalStateException when a request came past the gate */
    static DeviceRequest of(HttpServletRequest request) {
        DeviceRequest read = WebUtils.getNativeRequest(request, DeviceRequest.class);
        if (read == null) {
            throw new IllegalStateException("a request came past the gate of the device protocol");
        }
        return read;
    }

    int length() {
        return body.length;
    }

    /** Not to be changed. */
    byte[] body() {
        return body;
    }

    /** The {@code Content-Digest} that it should have. */
    String digest() {
        return Signature.digest(body);
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
            public int read(byte[] to, int from, int length) {
                return in.read(to, from, length);
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
