package rivo.server.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import picocli.CommandLine;
import rivo.server.fleet.ServerKeys;

/** {@code rivo new-server-key}. */
@Command(name = "new-server-key", mixinStandardHelpOptions = true,
        description = {"Makes a new private key for the server, which counts from its next start.",
            "Devices are told of it when they next call in, and go on with the one they know until then. Keep the earlier key's file "
                + "until the server says at its start that no device needs it any more, then delete it."})
public class NewServerKeyCommand implements Callable<Integer> {

    @Option(names = "--data", required = true, paramLabel = "DIR", description = "The folder of everything that Rivo keeps.")
    private Path data = Path.of("");

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        CommandLine commandLine = Objects.requireNonNull(spec).commandLine();
        if (!Files.isDirectory(data.resolve("keys"))) {
            throw new CommandLine.ParameterException(commandLine, data
                    + " is no data folder of Rivo: it has no keys. Give the folder that 'rivo serve' uses.");
        }
        commandLine.getOut().println("A new key is in " + ServerKeys.makeNext(data) + "; it counts from the next start.");
        return CommandLine.ExitCode.OK;
    }
}
