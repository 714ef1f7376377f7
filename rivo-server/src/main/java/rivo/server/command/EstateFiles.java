package rivo.server.command;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.formats.estate.EstateReader;

/** What the commands that work on estate files have in common. */
final class EstateFiles {

    /** Refused input. */
    static final int REFUSED = 2;
    private static final long DEEP_STACK = 1L << 29;

    private EstateFiles() {
    }

    /**
     * The estate in the file; null when it is refused, which is told as {@code path: sentence}, one a line.
     *
     * @param several whether other files are read as well, so that the file has to be named
     */
    static @Nullable Estate read(Path file, boolean several, PrintWriter err) throws IOException {
        if (!Files.isRegularFile(file)) {
            err.println(file + ": There is no such file; name an estate file.");
            return null;
        }
        try {
            return EstateReader.read(file);
        } catch (RefusedException e) {
            for (Problem problem : e.problems()) {
                String place = problem.place().isEmpty() ? file.toString()
                        : several ? file + ": " + problem.place() : problem.place();
                err.println(place + ": " + problem.sentence());
            }
            return null;
        }
    }

    /** Writes something to a stream. */
    interface Writing {
        void to(OutputStream out) throws IOException;
    }

    /** Writes a whole file or none: what stood there before stays until all is written. */
    static void write(Path file, Writing writing) throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        Files.createDirectories(folder);
        Path half = Files.createTempFile(folder, file.getFileName().toString(), ".part");
        try {
            try (OutputStream out = Files.newOutputStream(half)) {
                writing.to(out);
            }
            move(half, file);
        } finally {
            Files.deleteIfExists(half);
        }
    }

    private static void move(Path half, Path file) throws IOException {
        try {
            Files.move(half, file, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(half, file, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** Runs with room for needs that go very deep. */
    static int deep(Callable<Integer> work) throws Exception {
        FutureTask<Integer> task = new FutureTask<>(work);
        Thread thread = new Thread(null, task, "work", DEEP_STACK);
        thread.start();
        try {
            return task.get();
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Exception cause) {
                throw cause;
            }
            throw e;
        }
    }
}
