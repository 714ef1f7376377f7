package rivo.server.command;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import picocli.CommandLine;
import rivo.core.estate.Estate;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Effect;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Resolver;
import rivo.formats.csv.DifferenceCsv;

/** {@code rivo rehearse}. */
@Command(name = "rehearse", mixinStandardHelpOptions = true, sortOptions = false,
        description = {"Compares two estate files: what changes for whom, as CSV, with a summary on the standard error.",
            "Exit codes: 0 done, 2 refused input, 64 wrong usage."})
public class RehearseCommand implements Callable<Integer> {

    @Parameters(index = "0", paramLabel = "BEFORE", description = "An estate file, .json or .json.gz.")
    private Path before = Path.of("");

    @Parameters(index = "1", paramLabel = "AFTER", description = "An estate file, .json or .json.gz.")
    private Path after = Path.of("");

    @Option(names = "-o", paramLabel = "DIFF.csv", description = "Where to write; to the standard output when absent.")
    private @Nullable Path output;

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter err = Objects.requireNonNull(spec).commandLine().getErr();
        return EstateFiles.deep(() -> {
            Estate old = EstateFiles.read(before, true, err);
            Estate now = EstateFiles.read(after, true, err);
            if (old == null || now == null) {
                return EstateFiles.REFUSED;
            }
            Resolver was = Resolver.of(old);
            Resolver is = Resolver.of(now);
            Rehearsal rehearsal = Rehearsal.of(was, is);
            EstateFiles.Writing writing = out -> DifferenceCsv.write(was.audiences(), is.audiences(), rehearsal, out);
            if (output == null) {
                writing.to(new FileOutputStream(FileDescriptor.out));
            } else {
                EstateFiles.write(output, writing);
            }
            tell(rehearsal, err);
            return CommandLine.ExitCode.OK;
        });
    }

    private static void tell(Rehearsal rehearsal, PrintWriter err) {
        err.println(rehearsal.titles().size() + " titles looked at, " + rehearsal.changed().size() + " changed.");
        for (TitleDifference title : rehearsal.changed()) {
            Map<Effect, Integer> counts = new EnumMap<>(Effect.class);
            for (Difference difference : title.differences()) {
                counts.merge(difference.effect(), difference.units().size(), Integer::sum);
            }
            for (Difference difference : title.gone()) {
                counts.merge(difference.effect(), difference.units().size(), Integer::sum);
            }
            err.println("  " + title.title().id() + ": " + counts.entrySet().stream()
                    .map(e -> e.getValue() + " " + e.getKey().word()).collect(Collectors.joining(", "))
                    + " (" + title.why() + ")");
        }
        err.flush();
    }
}
