package rivo.server.command;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.Base64;
import java.util.Objects;
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
            "The password of the reading account comes from the environment variable RIVO_DIRECTORY_PASSWORD. The server's private "
                + "key lies in the data folder, or comes from RIVO_SERVER_KEY.",
            "Give a certificate and a key, or put a TLS proxy in front and say --behind-proxy."})
public class ServeCommand implements Callable<Integer> {

    private static final String PASSWORD = "RIVO_DIRECTORY_PASSWORD";
    private static final String SERVER_KEY = "RIVO_SERVER_KEY";
    private static final int TRIAL_BYTES = 12;

    @Mixin
    private ServeOptions options = new ServeOptions();

    @Option(names = "--address", paramLabel = "IP", defaultValue = "127.0.0.1",
            description = "The address to listen on (default: ${DEFAULT-VALUE}).")
    private String address = "";

    @Option(names = "--tls-certificate", paramLabel = "FILE",
            description = "The certificate chain in PEM, the server's own first. Read anew when the file changes.")
    private @Nullable Path certificate;

    @Option(names = "--tls-key", paramLabel = "FILE", description = "Its private key in PEM. Read anew when the file changes.")
    private @Nullable Path key;

    @Option(names = "--behind-proxy",
            description = "A proxy in front terminates TLS: forwarded headers count, cookies are for TLS only.")
    private boolean behindProxy;

    @Option(names = "--estate", paramLabel = "FILE", description = {"Fills an empty data folder from an estate file, in place of a directory: for "
        + "trying Rivo out, on this computer only. The account and its password are printed."})
    private @Nullable Path estate;

    @Option(names = "--directory-url", paramLabel = "URL",
            description = "Such as ldaps://directory.example:636.")
    private @Nullable URI url;

    @Option(names = "--directory-start-tls", description = "Change to TLS by StartTLS, on an ldap:// address.")
    private boolean startTls;

    @Option(names = "--directory-ca", paramLabel = "FILE",
            description = "Certificates in PEM that alone are trusted for the directory (default: those that Java trusts).")
    private @Nullable Path directoryCa;

    @Option(names = "--base-dn", paramLabel = "DN", description = "The suffix to follow.")
    private String baseDn = "";

    @Option(names = "--bind-dn", paramLabel = "DN", description = "The account that reads.")
    private String bindDn = "";

    @Option(names = "--administrators", paramLabel = "DN",
            description = "The group whose members may sign in: its distinguished name, or its entryUUID or objectGUID.")
    private String administrators = "";

    @Option(names = "--scan-every", paramLabel = "PERIOD", defaultValue = "PT2M",
            description = "How long between two scans of the directory (default: ${DEFAULT-VALUE}).")
    private Duration scanEvery = Duration.ZERO;

    @Option(names = "--call-in-every", paramLabel = "PERIOD", defaultValue = "PT15M",
            description = "How long a device may wait until it calls in again (default: ${DEFAULT-VALUE}).")
    private Duration callInEvery = Duration.ZERO;

    @Option(names = "--reports-a-minute", paramLabel = "N", defaultValue = "60",
            description = "How many reports one device may send a minute (default: ${DEFAULT-VALUE}).")
    private int reportsAMinute;

    @Option(names = "--report-mib-a-day", paramLabel = "N", defaultValue = "32",
            description = "How many MiB of reports one device may send a day (default: ${DEFAULT-VALUE}).")
    private int reportMebibytesADay;

    @Option(names = "--allow-local-mirrors", description = "Mirrors may be on this computer, or at link-local addresses.")
    private boolean localMirrors;

    @Option(names = "--memory", paramLabel = "SIZE", defaultValue = "2g",
            description = "The most heap, such as 4g (default: ${DEFAULT-VALUE}); docs/operations.md has a rule of thumb.")
    private String memory = "";

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        CommandLine commandLine = Objects.requireNonNull(spec).commandLine();
        checkFiles();
        String trial = estate == null ? null : trialPassword();
        ConfigurableApplicationContext context = (trial == null ? following() : trying(trial)).start();
        warn(commandLine.getErr());
        commandLine.getOut().println("Rivo runs at " + (certificate == null ? "http" : "https") + "://" + address + ":"
                + ServerProcess.port(context) + "/, with its data in " + options.dataOr("data/rivo"));
        if (trial != null) {
            commandLine.getOut().println("Sign in as administrator, password " + trial);
        }
        commandLine.getOut().flush();
        return CommandLine.ExitCode.OK;
    }

    private static String trialPassword() {
        byte[] bytes = new byte[TRIAL_BYTES];
        new SecureRandom().nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** Without a directory, of an estate file. */
    private ServerProcess trying(String password) throws IOException {
        if (url != null) {
            throw wrong("Either an estate file or a directory; leave --estate or --directory-url out.");
        }
        if (!isLoopback(address)) {
            throw wrong("An estate file is for trying Rivo out on this computer; leave --address out.");
        }
        return process().with("rivo.estate", Objects.requireNonNull(estate).toAbsolutePath().toString()).with("rivo.trial-password", password);
    }

    private ServerProcess following() throws IOException {
        String password = System.getenv(PASSWORD);
        if (url == null || baseDn.isEmpty() || bindDn.isEmpty() || administrators.isEmpty()) {
            throw wrong("A directory is followed by --directory-url, --base-dn, --bind-dn and --administrators; give all four. For a try, give "
                    + "--estate FILE.");
        }
        if (password == null) {
            throw wrong("The environment variable " + PASSWORD + " is not set; put the password of the reading account there.");
        }
        return process().with("rivo.directory.url", url.toString()).with("rivo.directory.base-dn", baseDn)
                .with("rivo.directory.bind-dn", bindDn).with("rivo.directory.password", password)
                .with("rivo.directory.start-tls", startTls)
                .with("rivo.directory.scan-every", scanEvery.toString())
                .with("rivo.directory.administrators", administrators);
    }

    private ServerProcess process() throws IOException {
        ServerProcess process = new ServerProcess(options.dataOr("data/rivo"), options.port, address)
                .with("rivo.call-in-every", callInEvery.toString())
                .with("rivo.reports.a-minute", reportsAMinute).with("rivo.reports.mebibytes-a-day", reportMebibytesADay)
                .with("rivo.local-mirrors", localMirrors);
        if (directoryCa != null) {
            process.with("rivo.directory.ca", directoryCa.toAbsolutePath().toString());
        }
        if (System.getenv(SERVER_KEY) != null) {
            process.with("rivo.server-key", System.getenv(SERVER_KEY));
        }
        if (behindProxy) {
            process.behindProxy();
        }
        return certificate == null || key == null ? process : process.tls(certificate, key);
    }

    private void checkFiles() {
        if ((certificate == null) != (key == null)) {
            throw wrong("TLS needs both a certificate and its key; give --tls-certificate and --tls-key.");
        }
        if (certificate != null && behindProxy) {
            throw wrong("Either Rivo terminates TLS itself or a proxy does; leave --behind-proxy or --tls-certificate out.");
        }
        for (Path file : new Path[] {certificate, key, directoryCa, estate}) {
            if (file != null && !Files.isReadable(file)) {
                throw wrong(file + " cannot be read; check that it is there, and that whoever runs Rivo may read it.");
            }
        }
    }

    /** Loudly, and where whoever starts it looks. */
    private void warn(PrintWriter err) {
        if (certificate == null && !behindProxy && !isLoopback(address)) {
            err.println("WARNING: Rivo listens on " + address + " without TLS. Passwords, sessions and what devices are told can be read "
                    + "on the way. Give --tls-certificate and --tls-key, or put a TLS proxy in front and say --behind-proxy.");
        }
        if (url != null && "ldap".equals(url.getScheme()) && !startTls && !isLoopback(url.getHost())) {
            err.println("WARNING: The directory is asked without TLS. Passwords can be read on the way, and whoever is in between can "
                    + "let anybody in. Use an ldaps:// address or --directory-start-tls.");
        }
        err.flush();
    }

    private static boolean isLoopback(String host) {
        try {
            return InetAddress.getByName(host).isLoopbackAddress();
        } catch (UnknownHostException e) {
            return false;
        }
    }

    private CommandLine.ParameterException wrong(String sentence) {
        return new CommandLine.ParameterException(Objects.requireNonNull(spec).commandLine(), sentence);
    }
}
