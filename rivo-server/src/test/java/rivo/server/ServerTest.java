package rivo.server;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;

/** Tests of one server, which starts with an empty folder before the first of a class and ends after the last. Somebody is signed in. */
public abstract class ServerTest {

    @TempDir
    protected static Path data;
    protected static TestServer server;

    @BeforeAll
    static void startServer() {
        server = TestServer.start(data).signIn();
    }

    @AfterAll
    static void stopServer() {
        server.close();
    }
}
