package rivo.server.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import rivo.server.RivoApplication;

/** Starts the server in this process. */
final class ServerProcess {

    private final Path data;
    private final Map<String, Object> properties = new HashMap<>();
    private String profile = "real";
    private Runnable answering = () -> {
    };

    ServerProcess(Path data, int port, String address) throws IOException {
        this.data = Files.createDirectories(data);
        properties.put("rivo.data", data.toString());
        properties.put("server.port", port);
        properties.put("server.address", address);
        properties.put("spring.datasource.url", "jdbc:h2:file:" + data.resolve("rivo")
                + ";WRITE_DELAY=0;DB_CLOSE_ON_EXIT=FALSE");
    }

    ServerProcess with(String property, Object value) {
        properties.put(property, value);
        return this;
    }

    ServerProcess demo() {
        profile = "demo";
        return this;
    }

    /** Done when the server answers already, and before it goes to work. */
    ServerProcess onceAnswering(Runnable what) {
        answering = what;
        return this;
    }

    /**
     * Starts and returns once it answers. It stops with the process.
     *
     * @throws StartException with a sentence, when it cannot start
     */
    ConfigurableApplicationContext start() {
        try {
            return new SpringApplicationBuilder(RivoApplication.class).properties(properties).profiles(profile)
                    .listeners((ApplicationListener<ApplicationStartedEvent>) event -> answering.run())
                    .logStartupInfo(false).run();
        } catch (RuntimeException e) {
            throw explain(e);
        }
    }

    static int port(ConfigurableApplicationContext context) {
        return ((WebServerApplicationContext) context).getWebServer().getPort();
    }

    private StartException explain(RuntimeException e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof PortInUseException) {
                return new StartException("The port " + properties.get("server.port")
                        + " is taken. Stop what uses it, or choose another with --port.", e);
            }
            if (String.valueOf(cause.getMessage()).contains("Database may be already in use")) {
                return new StartException("Another Rivo runs with the data in " + data
                        + ". Stop it, or choose another folder with --data.", e);
            }
        }
        return new StartException("Rivo could not start: " + rootMessage(e), e);
    }

    private static String rootMessage(Throwable e) {
        Throwable root = e;
        while (root.getCause() != null) {
            root = root.getCause();
        }
        return root.getMessage() == null ? root.toString() : root.getMessage();
    }

    /** Why the server did not start, in a sentence. */
    static final class StartException extends RuntimeException {
        StartException(String sentence, Throwable cause) {
            super(sentence, cause);
        }
    }
}
