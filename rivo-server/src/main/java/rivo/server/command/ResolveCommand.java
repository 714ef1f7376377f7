package rivo.server.command;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import picocli.CommandLine;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;
import rivo.formats.csv.EffectiveCsv;

/** {@code rivo resolve}. */
@Command(name = "resolve", mixinStandardHelpOptions = true, sortOptions = false,
        description = {"Resolves an estate file into its effective assignments, as CSV.",
            "Exit codes: 0 done, 2 refused input, 64 wrong usage."})
public class ResolveCommand implements Callable<Integer> {

    private static final double MILLIS = 1_000_000.0;
    private static final double MIB = 1 << 20;

    @Parameters(arity = "1..*", paramLabel = "ESTATE", description = "Estate files, .json or .json.gz.")
    private List<Path> estates = List.of();

    @Option(names = "-o", paramLabel = "OUT.csv", description = "Where to write; to the standard output when absent.")
    private @Nullable Path output;

    @Option(names = "--out-dir", paramLabel = "DIR",
            description = "For one or several files: writes NAME.csv for NAME.json into this folder.")
    private @Nullable Path folder;

    @Option(names = "--check", description = "Only checks the files; writes nothing.")
    private boolean check;

    @Option(names = "--stats", description = "Tells counts and times on the standard error.")
    private boolean stats;

    @Spec
    private @Nullable CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        CommandLine line = Objects.requireNonNull(spec).commandLine();
        if (output != null && folder != null) {
            throw new CommandLine.ParameterException(line, "-o and --out-dir exclude each other; give one of them.");
        }
        if (estates.size() > 1 && folder == null && !check) {
            throw new CommandLine.ParameterException(line, "Several files need --out-dir, or --check; give one of them.");
        }
        return EstateFiles.deep(() -> {
            int exit = CommandLine.ExitCode.OK;
            for (Path file : estates) {
                exit = Math.max(exit, resolve(file, line.getErr()));
            }
            return exit;
        });
    }

    private int resolve(Path file, PrintWriter err) throws IOException {
        long start = System.nanoTime();
        Estate estate = EstateFiles.read(file, estates.size() > 1, err);
        long read = System.nanoTime();
        if (estate == null) {
            return EstateFiles.REFUSED;
        }
        if (check) {
            tell(err, file, estate, "read in " + millis(start, read));
            return CommandLine.ExitCode.OK;
        }
        Resolver resolver = Resolver.of(estate);
        var outcomes = resolver.all(Runtime.getRuntime().availableProcessors()).values();
        long resolved = System.nanoTime();
        long[] rows = new long[1];
        EstateFiles.Writing writing = out -> rows[0] = EffectiveCsv.write(resolver.audiences(), outcomes, out);
        Path to = folder == null ? output : folder.resolve(name(file));
        if (to != null) {
            EstateFiles.write(to, writing);
        } else {
            OutputStream out = new java.io.FileOutputStream(java.io.FileDescriptor.out);
            writing.to(out);
        }
        tell(err, file, estate, rows[0] + " rows; read in " + millis(start, read) + ", resolved in "
                + millis(read, resolved) + ", written in " + millis(resolved, System.nanoTime()));
        return CommandLine.ExitCode.OK;
    }

    private static String name(Path file) {
        return file.getFileName().toString().replaceFirst("(\\.json)?(\\.gz)?$", "") + ".csv";
    }

    private void tell(PrintWriter err, Path file, Estate estate, String what) {
        if (stats) {
            err.println(file + ": " + estate.devices().size() + " devices, " + estate.users().size() + " users, "
                    + estate.titles().size() + " titles, " + estate.assignments().all().size() + " assignments; " + what
                    + "; peak heap " + String.format(Locale.ROOT, "%.0f MiB", peakHeap() / MIB));
            err.flush();
        }
    }

    private static String millis(long from, long to) {
        return String.format(Locale.ROOT, "%.0f ms", (to - from) / MILLIS);
    }

    private static long peakHeap() {
        return ManagementFactory.getMemoryPoolMXBeans().stream().filter(pool -> pool.getType() == MemoryType.HEAP)
                .map(MemoryPoolMXBean::getPeakUsage).mapToLong(usage -> usage.getUsed()).sum();
    }
}
