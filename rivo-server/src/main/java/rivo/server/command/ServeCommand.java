package rivo.server.command;

import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ConfigurableApplicationContext;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import picocli.CommandLine;

/** {@code rivo serve}. */
@Command(name = "serve", mixinStandardHelpOptions = true, sortOptions = false,
        description = {"Starts Rivo for an organisation's own directory.",
            "The password of the reading account comes from the environment variable RIVO_DIRECTORY_PASSWORD. "
                + "Put a TLS proxy in front: Rivo itself speaks plain HTTP."})
public class ServeCommand implements Callable<Integer> {

    private static final String PASSWORD = "RIVO_DIRECTORY_PASSWORD";

    @Mixin
    private ServeOptions options = new ServeOptions();

    @Option(names = "--address", paramLabel = "IP", defaultValue = "127.0.0.1",
            description = "The address to listen on (default: ${DEFAULT-VALUE}).")
    private String address = "";

    @Option(names = "--directory-url", required = true, paramLabel = "URL",
            description = "Such as ldaps://directory.example:636.")
    private URI url = URI.create("ldap://localhost");

    @Option(names = "--base-dn", required = true, paramLabel = "DN", description = "The suffix to follow.")
    private String baseDn = "";

    @Option(names = "--bind-dn", required = true, paramLabel = "DN", description = "The account that reads.")
    private String bindDn = "";

    @Option(names = "--administrators", required = true, paramLabel = "GROUP",
            description = "The name of the group whose members may sign in.")
    private String administrators = "";

    @Option(names = "--scan-every", paramLabel = "PERIOD", defaultValue = "PT2M",
            description = "How long between two scans of the directory (default: ${DEFAULT-VALUE}).")
    private Duration scanEvery = Duration.ZERO;

    @Option(names = "--call-in-every", paramLabel = "PERIOD", defaultValue = "PT15M",
            description = "How long a device may wait until it calls in again (default: ${DEFAULT-VALUE}).")
    private Duration callInEvery = Duration.ZERO;

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        CommandLine commandLine = java.util.Objects.requireNonNull(spec).commandLine();
        String password = System.getenv(PASSWORD);
        if (password == null) {
            throw new CommandLine.ParameterException(commandLine, "The environment variable " + PASSWORD
                    + " is not set; put the password of the reading account there.");
        }
        ConfigurableApplicationContext context = new ServerProcess(options.dataOr("data/rivo"), options.port, address)
                .with("rivo.call-in-every", callInEvery.toString())
                .with("rivo.directory.url", url.toString()).with("rivo.directory.base-dn", baseDn)
                .with("rivo.directory.bind-dn", bindDn).with("rivo.directory.password", password)
                .with("rivo.directory.scan-every", scanEvery.toString())
                .with("rivo.directory.administrators", administrators).start();
        commandLine.getOut().println("Rivo runs at http://" + address + ":" + ServerProcess.port(context) + "/");
        commandLine.getOut().flush();
        return CommandLine.ExitCode.OK;
    }
}
