package rivo.server.command;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import picocli.CommandLine;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.explain.ReleaseLook;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Clause;
import rivo.formats.trail.TrailJson;

/** {@code rivo explain}. */
@Command(name = "explain", mixinStandardHelpOptions = true, sortOptions = false,
        description = {"Explains what a device gets of a title, or why it gets nothing.",
            "Exit codes: 0 done, 2 refused input, 64 wrong usage."})
public class ExplainCommand implements Callable<Integer> {

    @Parameters(paramLabel = "ESTATE", description = "An estate file, .json or .json.gz.")
    private Path file = Path.of("");

    @Option(names = "--device", required = true, paramLabel = "D", description = "The id or the name of a device.")
    private String device = "";

    @Option(names = "--title", required = true, paramLabel = "T", description = "The id or the name of a title.")
    private String title = "";

    @Option(names = "--user", paramLabel = "U",
            description = "For a title of scope user: the id or the name of one of the device's people.")
    private @Nullable String user;

    @Option(names = "--json", description = "As JSON.")
    private boolean json;

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        CommandLine line = Objects.requireNonNull(spec).commandLine();
        return EstateFiles.deep(() -> {
            Estate estate = EstateFiles.read(file, false, line.getErr());
            if (estate == null) {
                return EstateFiles.REFUSED;
            }
            Trail trail = trail(Resolver.of(estate), line);
            if (json) {
                OutputStream out = new FileOutputStream(FileDescriptor.out);
                TrailJson.write(trail, out);
                out.write('\n');
            } else {
                print(trail, line.getOut());
            }
            return CommandLine.ExitCode.OK;
        });
    }

    private Trail trail(Resolver resolver, CommandLine line) {
        Estate estate = resolver.estate();
        Device onDevice = one(line, "device", device, estate.devices().all(), Device::id, Device::name);
        Title ofTitle = one(line, "title", title, estate.titles(), Title::id, Title::name);
        if (ofTitle.scope() == Scope.DEVICE) {
            return Trail.of(resolver, ofTitle, estate.devices().position(onDevice.id()));
        }
        List<User> people = onDevice.people().stream().map(id -> Objects.requireNonNull(estate.users().find(id))).toList();
        if (people.isEmpty()) {
            throw new ParameterException(line, "The device has no people, so nobody gets a title of scope user there.");
        }
        if (user == null && people.size() > 1) {
            throw new ParameterException(line, "Say --user for a title of scope user; the device's people are "
                    + people.stream().map(User::id).collect(Collectors.joining(", ")) + ".");
        }
        User person = user == null ? people.get(0) : one(line, "person of the device", user, people, User::id, User::name);
        return Trail.of(resolver, ofTitle, resolver.audiences().unit(Scope.USER, onDevice.id(), person.id()));
    }

    private static <T> T one(CommandLine line, String what, String wanted, Collection<T> all, Function<T, String> id,
            Function<T, String> name) {
        List<T> found = all.stream().filter(one -> id.apply(one).equals(wanted)).toList();
        if (found.isEmpty()) {
            found = all.stream().filter(one -> name.apply(one).equalsIgnoreCase(wanted)).toList();
        }
        if (found.size() != 1) {
            throw new ParameterException(line, found.isEmpty() ? "There is no " + what + " \"" + wanted + "\"; give its id."
                    : "Several are named \"" + wanted + "\"; give the id of one.");
        }
        return found.get(0);
    }

    private static void print(Trail trail, PrintWriter out) {
        out.println(trail.sentence());
        trail.decision().filter(d -> d.release() != null).ifPresent(d -> out.println("Release "
                + Objects.requireNonNull(d.release()).version() + ", variant " + d.variant() + "."));
        if (!trail.rungs().isEmpty()) {
            out.println();
            out.println("Which assignments count, the strongest first:");
            trail.rungs().forEach(rung -> print(trail, rung, out));
        }
        if (!trail.releases().isEmpty()) {
            out.println();
            out.println("Its releases, the newest first:");
            trail.releases().forEach(look -> print(look, out));
        }
        Trail other = trail.other();
        if (other != null) {
            out.println();
            out.println(other.title().id() + ": " + other.sentence());
        }
        out.flush();
    }

    private static void print(Trail trail, Rung rung, PrintWriter out) {
        out.println("  " + rung.assignment().id() + " " + rung.assignment().intent().word() + " "
                + rung.target() + (rung.person().isEmpty() ? "" : " (through " + rung.person() + ")") + ": "
                + trail.sentence(rung));
        trail.clauses(rung).forEach(clause -> print(clause, out));
    }

    private static void print(ReleaseLook look, PrintWriter out) {
        out.println("  " + look.release().version() + ": " + look.kind().word().replace('-', ' '));
        for (ReleaseLook.VariantLook variant : look.variants()) {
            if (!variant.clauses().isEmpty()) {
                out.println("    " + variant.variant().id() + (variant.fits() ? " fits" : " does not fit"));
                variant.clauses().forEach(clause -> print(clause, out));
            }
        }
    }

    private static void print(Clause clause, PrintWriter out) {
        out.println("      " + (clause.holds() ? "true   " : "false  ") + clause.words() + "  saw "
                + (clause.seen().isEmpty() ? "nothing" : String.join(", ", clause.seen())));
    }
}
