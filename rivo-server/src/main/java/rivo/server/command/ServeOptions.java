package rivo.server.command;

import java.nio.file.Path;
import picocli.CommandLine.Option;

/** What every way of running the server takes. */
class ServeOptions {

    @Option(names = "--port", paramLabel = "N", defaultValue = "8080",
            description = "The port to listen on, 0 for any free one (default: ${DEFAULT-VALUE}).")
    int port;

    @Option(names = "--data", paramLabel = "DIR", description = "The folder of everything that Rivo keeps.")
    Path data;

    /** @param otherwise below where Rivo lies, wherever it is started from */
    Path dataOr(String otherwise) {
        return (data == null ? Path.of(System.getProperty("rivo.home", "")).resolve(otherwise) : data).toAbsolutePath().normalize();
    }
}
