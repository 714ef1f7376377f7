package rivo.server;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;

/** Requests written by hand, byte by byte, as no client would send them. */
public final class RawHttp {

    private static final int PATIENCE_MILLIS = 10_000;

    private RawHttp() {
    }

    /** Sends these bytes and gives everything that comes back until the server closes; so ask it to. */
    public static String send(URI server, String request) throws IOException {
        return send(server, request.getBytes(StandardCharsets.ISO_8859_1));
    }

    public static String send(URI server, byte[] request) throws IOException {
        try (Socket socket = new Socket(server.getHost(), server.getPort())) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            socket.getOutputStream().write(request);
            socket.getOutputStream().flush();
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** Sends these bytes and gives what comes back up to this text, whatever the server does with the connection afterwards. */
    public static String sendAndReadUpTo(URI server, String request, String text) throws IOException {
        try (Socket socket = new Socket(server.getHost(), server.getPort())) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            socket.getOutputStream().write(request.getBytes(StandardCharsets.ISO_8859_1));
            socket.getOutputStream().flush();
            StringBuilder read = new StringBuilder();
            for (int b = socket.getInputStream().read(); b >= 0 && read.indexOf(text) < 0; b = socket.getInputStream().read()) {
                read.append((char) b);
            }
            return read.toString();
        }
    }
}
