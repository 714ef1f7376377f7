package rivo.bench;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
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
    private final byte[] come = new byte[1 << 14];
    private int at;
    private int end;
    private Socket socket;
    private boolean ends;

    RawConnection(URI server) throws IOException {
        this.server = server;
        this.host = server.getHost() + ":" + server.getPort();
        this.socket = connected();
    }

    private Socket connected() throws IOException {
        Socket made = new Socket(server.getHost(), server.getPort());
        made.setTcpNoDelay(true);
        return made;
    }

    /** A server ends a connection after so many requests, and says so. */
    private void again() throws IOException {
        socket.close();
        socket = connected();
        at = 0;
        end = 0;
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
        socket.getOutputStream().write(whole);
        return read();
    }

    private Answer read() throws IOException {
        int status = Integer.parseInt(line().split(" ", 3)[1]);
        int length = 0;
        boolean chunked = false;
        String etag = null;
        for (String line = line(); !line.isEmpty(); line = line()) {
            if (isHeader(line, "Content-Length:")) {
                length = Integer.parseInt(value(line));
            } else if (isHeader(line, "ETag:")) {
                etag = value(line);
            } else if (isHeader(line, "Transfer-Encoding:")) {
                chunked = true;
            } else if (isHeader(line, "Connection:")) {
                ends = "close".equalsIgnoreCase(value(line));
            }
        }
        return new Answer(status, etag, status == 304 ? new byte[0] : chunked ? chunks() : bytes(length));
    }

    private static boolean isHeader(String line, String name) {
        return line.regionMatches(true, 0, name, 0, name.length());
    }

    private static String value(String line) {
        return line.substring(line.indexOf(':') + 1).strip();
    }

    private byte[] chunks() throws IOException {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        for (int size = Integer.parseInt(line(), 16); size > 0; size = Integer.parseInt(line(), 16)) {
            body.write(bytes(size));
            line();
        }
        line();
        return body.toByteArray();
    }

    /** Without its end. */
    private String line() throws IOException {
        int from = 0;
        while (true) {
            for (int i = at + from; i < end; i++) {
                if (come[i] == '\n') {
                    String line = new String(come, at, i - at, StandardCharsets.ISO_8859_1);
                    at = i + 1;
                    return line.endsWith("\r") ? line.substring(0, line.length() - 1) : line;
                }
            }
            from = end - at;
            more();
        }
    }

    private byte[] bytes(int length) throws IOException {
        byte[] bytes = new byte[length];
        for (int done = 0; done < length;) {
            if (at == end) {
                more();
            }
            int n = Math.min(length - done, end - at);
            System.arraycopy(come, at, bytes, done, n);
            at += n;
            done += n;
        }
        return bytes;
    }

    /** Behind what has come and not been read. */
    private void more() throws IOException {
        System.arraycopy(come, at, come, 0, end - at);
        end -= at;
        at = 0;
        int n = end == come.length ? -1 : socket.getInputStream().read(come, end, come.length - end);
        if (n < 0) {
            throw new EOFException("the server closed the connection, or its line is too long");
        }
        end += n;
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
