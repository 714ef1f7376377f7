package rivo.server.command;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ContextClosedEvent;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import picocli.CommandLine;
import rivo.directory.DirectoryException;
import rivo.directory.demo.DemoLdif;
import rivo.directory.demo.DemoOrganisation;
import rivo.directory.demo.EmbeddedDirectory;
import rivo.server.demo.DemoFleet;

/** {@code rivo demo}. */
@Command(name = "demo", mixinStandardHelpOptions = true, sortOptions = false,
        description = {"Starts Rivo with the made-up organisation Quillbrook Water: a directory, titles, assignments "
                + "and a simulated fleet.", "It listens on this computer only. Ctrl-C stops everything."})
public class DemoCommand implements Callable<Integer> {

    static final String PASSWORD = "heron-on-the-weir";
    private static final String READER_PASSWORD = "reads-only";
    private static final String MARK = "demo.txt";

    @Mixin
    private ServeOptions options = new ServeOptions();

    @Option(names = "--small", description = "60 devices instead of about 6,480.")
    private boolean small;

    @Option(names = "--fresh", description = "Begin anew: what the demo kept in its folder is deleted.")
    private boolean fresh;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Path data = options.dataOr("data/demo");
        if (fresh) {
            clear(data);
        }
        mark(data);
        int directoryPort = freePort();
        CompletableFuture<Optional<EmbeddedDirectory>> directory = CompletableFuture
                .supplyAsync(() -> startDirectory(data.resolve("directory.ldif"), directoryPort));
        ServerProcess server = new ServerProcess(data, options.port, "127.0.0.1").demo()
                .with("rivo.call-in-every", Duration.ofMinutes(15).toString())
                .with("rivo.demo.small", small).with("rivo.demo.folder", data.resolve("fleet").toString())
                .with("rivo.directory.url", "ldap://127.0.0.1:" + directoryPort)
                .with("rivo.directory.base-dn", DemoOrganisation.BASE_DN)
                .with("rivo.directory.bind-dn", DemoOrganisation.READER_DN)
                .with("rivo.directory.password", READER_PASSWORD)
                .with("rivo.directory.scan-every", Duration.ofSeconds(30).toString())
                .with("rivo.directory.administrators", DemoOrganisation.ADMINISTRATORS_DN)
                .with("rivo.local-mirrors", true)
                .onceAnswering(() -> directory.join());
        ConfigurableApplicationContext context = server.start();
        context.addApplicationListener(event -> {
            if (event instanceof ContextClosedEvent) {
                directory.join().ifPresent(EmbeddedDirectory::close);
            }
        });
        awaitHistory(context.getBean(DemoFleet.class));
        say(context);
        return CommandLine.ExitCode.OK;
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    /** Whoever looks sooner finds an organisation without any software. */
    private void awaitHistory(DemoFleet fleet) {
        if (!fleet.hasHistory()) {
            spec.commandLine().getOut().println("The demo is new: its titles and first changes are being made.");
            spec.commandLine().getOut().flush();
        }
        try {
            fleet.awaitHistory();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void say(ConfigurableApplicationContext context) {
        PrintWriter out = spec.commandLine().getOut();
        out.println();
        out.println("Rivo runs at   http://127.0.0.1:" + ServerProcess.port(context) + "/");
        out.println("Sign in as     " + DemoOrganisation.ADMINISTRATOR);
        out.println("Password       " + PASSWORD);
        out.println("Shelf          http://127.0.0.1:" + ServerProcess.port(context) + "/shelf  as " + DemoOrganisation.SHELF_PERSON
                + ", with the same password");
        out.println();
        out.println("Ctrl-C stops it; the next start goes on from there (--fresh begins anew).");
        out.flush();
    }

    /** Beside the server, since both take seconds. Without its directory the demo runs on what it has read before. */
    private Optional<EmbeddedDirectory> startDirectory(Path ldif, int port) {
        try {
            if (!Files.exists(ldif)) {
                DemoLdif.write(new DemoOrganisation(small), ldif, PASSWORD, READER_PASSWORD);
            }
            return Optional.of(EmbeddedDirectory.start(ldif, port));
        } catch (DirectoryException | IOException e) {
            spec.commandLine().getErr().println(e.getMessage());
            spec.commandLine().getErr().println("The demo starts without its directory, on what was read before.");
            return Optional.empty();
        }
    }

    private void mark(Path data) throws IOException {
        Path mark = data.resolve(MARK);
        String size = small ? "small" : "full";
        if (!Files.exists(mark)) {
            try (Stream<Path> there = Files.isDirectory(data) ? Files.list(data) : Stream.empty()) {
                if (there.findAny().isPresent()) {
                    throw wrong(data + " holds something else than the demo. Choose another folder with --data.");
                }
            }
            Files.createDirectories(data);
            Files.writeString(mark, size + System.lineSeparator());
        } else if (!Files.readString(mark).strip().equals(size)) {
            throw wrong(data + " holds the " + Files.readString(mark).strip() + " demo. Choose another folder with "
                    + "--data, or begin anew with --fresh.");
        }
    }

    private CommandLine.ParameterException wrong(String sentence) {
        return new CommandLine.ParameterException(spec.commandLine(), sentence);
    }

    /** Deletes only a folder that carries the demo's mark. */
    private void clear(Path data) throws IOException {
        if (!Files.exists(data.resolve(MARK))) {
            return;
        }
        List<Path> all;
        try (Stream<Path> walk = Files.walk(data)) {
            all = walk.sorted(Comparator.reverseOrder()).toList();
        }
        for (Path path : all) {
            Files.delete(path);
        }
    }
}
