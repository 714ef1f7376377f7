package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.ServerSettings;
import rivo.server.TestServer;

/** Clients that begin a request and do not end it, at a server with less patience than half a minute. */
class StalledClientTest {

    @TempDir
    private Path data;

    @Test
    void thePatienceIsHalfAMinute() {
        assertThat(ServerSettings.at(data).clientPatience()).isEqualTo(Duration.ofSeconds(30));
        try (TestServer server = TestServer.start(data)) {
            assertThat(server.bean(ServerSettings.class).clientPatience()).isEqualTo(Duration.ofSeconds(30));
        }
    }

    @Test
    void whereverTheyStopTheyLoseTheirConnection() throws Exception {
        try (TestServer server = TestServer.start(data, "--rivo.client-patience=2s")) {
            List<String> beginnings = List.of("", "GET /api/tit", "GET /health HTTP/1.1\r\nHost: local",
                    "POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 100\r\n\r\n",
                    "POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 100\r\n\r\n{\"acc",
                    "GET /health HTTP/1.1\r\nHost: localhost\r\n\r\n");
            List<Socket> sockets = new ArrayList<>();
            for (String beginning : beginnings) {
                Socket socket = new Socket(server.url().getHost(), server.url().getPort());
                socket.getOutputStream().write(beginning.getBytes(StandardCharsets.US_ASCII));
                sockets.add(socket);
            }
            long begun = System.nanoTime();
            for (int i = 0; i < sockets.size(); i++) {
                untilItCloses(sockets.get(i), beginnings.get(i));
                assertThat(Duration.ofNanos(System.nanoTime() - begun)).as(beginnings.get(i)).isBetween(Duration.ofSeconds(1), Duration.ofSeconds(8));
            }
        }
    }

    private static void untilItCloses(Socket socket, String what) throws IOException {
        try (socket) {
            socket.setSoTimeout(10_000);
            InputStream in = socket.getInputStream();
            StringBuilder told = new StringBuilder();
            for (int b = in.read(); b >= 0; b = in.read()) {
                told.append((char) b);
            }
            assertThat(told.toString()).as(what).doesNotContain("HTTP/1.1 5");
        }
    }
}
