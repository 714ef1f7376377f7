package rivo.server.command;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.flywaydb.core.api.exception.FlywayValidateException;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import rivo.server.RivoApplication;
import rivo.server.storage.Database;
import rivo.server.storage.PrivateFiles;

/** Starts the server in this process. */
final class ServerProcess {

    private final Path data;
    private final Map<String, Object> properties = new HashMap<>();
    private String profile = "real";
    private Runnable answering = () -> {
    };

    ServerProcess(Path data, int port, String address) throws IOException {
        this.data = PrivateFiles.folder(data);
        PrivateFiles.closeAll(data);
        properties.put("rivo.data", data.toString());
        properties.put("server.port", port);
        properties.put("server.address", address);
        properties.put("spring.datasource.url", Database.url(data));
    }

    /** A proxy in front terminates TLS, and says from where and how it was asked (RFC 7239 and its forerunners). */
    ServerProcess behindProxy() {
        properties.put("server.forward-headers-strategy", "native");
        return secure();
    }

    /** This process terminates TLS itself; the files are read anew when they change. */
    ServerProcess tls(Path certificate, Path key) {
        properties.put("spring.ssl.bundle.pem.web.keystore.certificate", "file:" + certificate.toAbsolutePath());
        properties.put("spring.ssl.bundle.pem.web.keystore.private-key", "file:" + key.toAbsolutePath());
        properties.put("spring.ssl.bundle.pem.web.reload-on-update", true);
        properties.put("spring.ssl.bundle.watch.file.quiet-period", "2s");
        properties.put("server.ssl.bundle", "web");
        properties.put("server.ssl.enabled-protocols", "TLSv1.3,TLSv1.2");
        return secure();
    }

    private ServerProcess secure() {
        properties.put("rivo.secure", true);
        properties.put("server.servlet.session.cookie.secure", true);
        return this;
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
                    .listeners((ApplicationListener<ApplicationReadyEvent>) event -> closeAgain())
                    .logStartupInfo(false).run();
        } catch (RuntimeException e) {
            throw explain(e);
        }
    }

    /** What has been made since, by H2 among others. */
    private void closeAgain() {
        try {
            PrivateFiles.closeAll(data);
        } catch (IOException e) {
            throw new UncheckedIOException("The data folder " + data + " could not be closed to others.", e);
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
            if (cause instanceof FlywayValidateException) {
                return new StartException("The data in " + data + " was written by another version of Rivo, which this one does not know. "
                        + "Start it with that version, or go on with the copy of the data folder that was made before the upgrade.", e);
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
