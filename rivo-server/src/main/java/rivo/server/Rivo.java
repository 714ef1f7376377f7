package rivo.server;

import picocli.CommandLine.Command;
import picocli.CommandLine;
import rivo.server.command.DemoCommand;
import rivo.server.command.ExplainCommand;
import rivo.server.command.NewServerKeyCommand;
import rivo.server.command.RehearseCommand;
import rivo.server.command.ResolveCommand;
import rivo.server.command.ServeCommand;

/** The command line. Exit codes: 0 done, 1 could not be done, 2 refused input, 64 wrong usage. */
@Command(name = "rivo", mixinStandardHelpOptions = true, version = "rivo 0.1.0",
        description = "Decides which software is on which computer, and shows why.",
        subcommands = {DemoCommand.class, ServeCommand.class, NewServerKeyCommand.class, ResolveCommand.class,
            ExplainCommand.class, RehearseCommand.class})
public final class Rivo {

    private static final int WRONG_USAGE = 64;

    private Rivo() {
    }

    public static void main(String[] arguments) {
        int exit = run(arguments);
        if (exit != 0) {
            System.exit(exit);
        }
    }

    /** Returns at once when a server was started; it goes on in its own threads. */
    public static int run(String... arguments) {
        CommandLine line = new CommandLine(new Rivo());
        line.setExecutionExceptionHandler((e, command, parsed) -> {
            command.getErr().println("rivo: " + e.getMessage());
            return CommandLine.ExitCode.SOFTWARE;
        });
        line.setExitCodeExceptionMapper(e -> 1);
        line.setParameterExceptionHandler((e, args) -> {
            e.getCommandLine().getErr().println("rivo: " + e.getMessage());
            e.getCommandLine().getErr().println("See 'rivo " + e.getCommandLine().getCommandName() + " --help'.");
            return WRONG_USAGE;
        });
        if (arguments.length == 0) {
            line.usage(line.getErr());
            return WRONG_USAGE;
        }
        return line.execute(arguments);
    }
}
