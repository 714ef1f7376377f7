package rivo.bench;

import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * One kept connection that asks and reads as little as is needed (RFC 9112), so that the driver takes as little of the machine as can be.
 * Of one thread.
 */
final class RawConnection implements AutoCloseable {

    /** @param etag null when there is none */
    record Answer(int status, @Nullable String etag, byte[] body) {
    }

    private final URI server;
    private final String host;
    private Socket socket;
    private InputStream in;
    private OutputStream out;
    private boolean ends;

    RawConnection(URI server) throws IOException {
        this.server = server;
        this.host = server.getHost() + ":" + server.getPort();
        this.socket = new Socket(server.getHost(), server.getPort());
        this.in = new BufferedInputStream(socket.getInputStream(), 1 << 14);
        this.out = socket.getOutputStream();
        socket.setTcpNoDelay(true);
    }

    /** A server ends a connection after so many requests, and says so. */
    private void again() throws IOException {
        socket.close();
        socket = new Socket(server.getHost(), server.getPort());
        in = new BufferedInputStream(socket.getInputStream(), 1 << 14);
        out = socket.getOutputStream();
        socket.setTcpNoDelay(true);
        ends = false;
    }

    /** @param headers whole lines, each with its end */
    Answer ask(String method, String path, String headers, byte @Nullable [] body) throws IOException {
        StringBuilder head = new StringBuilder(512).append(method).append(' ').append(path).append(" HTTP/1.1\r\nHost: ").append(host)
                .append("\r\n").append(headers);
        if (body != null) {
            head.append("Content-Type: application/json\r\nContent-Length: ").append(body.length).append("\r\n");
        }
        byte[] begun = head.append("\r\n").toString().getBytes(StandardCharsets.US_ASCII);
        byte[] whole = new byte[begun.length + (body == null ? 0 : body.length)];
        System.arraycopy(begun, 0, whole, 0, begun.length);
        if (body != null) {
            System.arraycopy(body, 0, whole, begun.length, body.length);
        }
        if (ends) {
            again();
        }
        out.write(whole);
        return read();
    }

    private Answer read() throws IOException {
        int status = Integer.parseInt(line().split(" ", 3)[1]);
        int length = 0;
        boolean chunked = false;
        String etag = null;
        for (String line = line(); !line.isEmpty(); line = line()) {
            int colon = line.indexOf(':');
            String name = line.substring(0, colon).toLowerCase(Locale.ROOT);
            switch (name) {
                case "content-length" -> length = Integer.parseInt(line.substring(colon + 1).strip());
                case "etag" -> etag = line.substring(colon + 1).strip();
                case "transfer-encoding" -> chunked = true;
                case "connection" -> ends = line.toLowerCase(Locale.ROOT).contains("close");
                default -> {
                    continue;
                }
            }
        }
        return new Answer(status, etag, status == 304 ? new byte[0] : chunked ? chunks() : in.readNBytes(length));
    }

    private byte[] chunks() throws IOException {
        java.io.ByteArrayOutputStream body = new java.io.ByteArrayOutputStream();
        for (int size = Integer.parseInt(line(), 16); size > 0; size = Integer.parseInt(line(), 16)) {
            body.write(in.readNBytes(size));
            line();
        }
        line();
        return body.toByteArray();
    }

    private String line() throws IOException {
        StringBuilder line = new StringBuilder();
        for (int b = in.read(); b != '\n'; b = in.read()) {
            if (b < 0) {
                throw new EOFException("the server closed the connection");
            }
            if (b != '\r') {
                line.append((char) b);
            }
        }
        return line.toString();
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
