package rivo.formats.installer;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.jspecify.annotations.Nullable;

/** One entry of an archive, unpacked into a file that is gone when this is closed. */
final class Unpacked implements AutoCloseable {

    private static final long MOST = 2L << 30;
    /** What may come to any number of times its size; above it, to 200 times. */
    private static final long HARMLESS = 64L << 20;
    private static final int MOST_TIMES = 200;

    private final Path file;

    private Unpacked(Path file) {
        this.file = file;
    }

    /** Null where it comes to more than 2 GiB, or to far more than it says or than it takes packed, where unpacking it takes too long, or where the disk has no room for it. */
    static @Nullable Unpacked of(ZipFile zip, ZipEntry entry, ReadingBudget budget) throws IOException {
        if (entry.getSize() > MOST || entry.getSize() > HARMLESS && entry.getSize() / MOST_TIMES > entry.getCompressedSize()) {
            return null;
        }
        Path file = Files.createTempFile("rivo-inside", ".part");
        try (InputStream in = budget.metered(zip.getInputStream(entry), Math.max(0, entry.getSize()), entry.getName())) {
            Files.copy(in, file, StandardCopyOption.REPLACE_EXISTING);
            return new Unpacked(file);
        } catch (IOException e) {
            Files.deleteIfExists(file);
            return null;
        }
    }

    Path file() {
        return file;
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(file);
    }
}
