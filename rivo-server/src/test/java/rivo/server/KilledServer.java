package rivo.server;

import java.nio.file.Path;

/** A server in a process of its own, for {@link SuddenDeathTest} to kill. Prints its address when it answers. */
public final class KilledServer {

    private KilledServer() {
    }

    public static void main(String[] arguments) {
        TestServer server = TestServer.start(Path.of(arguments[0]), "--rivo.reports.a-minute=1000000", "--rivo.reports.mebibytes-a-day=100000");
        System.out.println("at " + server.url());
    }
}
