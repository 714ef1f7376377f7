package rivo.server.storage;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Set;

/**
 * Files and folders that their owner alone may read. Where the file system knows no such permissions (not POSIX), the folder's own
 * access list has to see to it.
 */
public final class PrivateFiles {

    private static final Set<PosixFilePermission> FILE = PosixFilePermissions.fromString("rw-------");
    private static final Set<PosixFilePermission> FOLDER = PosixFilePermissions.fromString("rwx------");

    private PrivateFiles() {
    }

    /** Makes the folder where it is missing, and closes it to others. */
    public static Path folder(Path folder) throws IOException {
        Files.createDirectories(folder);
        close(folder, FOLDER);
        return folder;
    }

    /** Writes a new file that only its owner may read, and forces it to disk. */
    public static Path write(Path file, String text) throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        Files.deleteIfExists(part);
        Files.createFile(part);
        close(part, FILE);
        try (FileChannel channel = FileChannel.open(part, StandardOpenOption.WRITE)) {
            channel.write(ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
            channel.force(true);
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
        forceFolder(file.toAbsolutePath().getParent());
        return file;
    }

    /** Forces a file's bytes to disk. */
    public static void force(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    /** Forces the names in a folder to disk; where a system opens no folders, it does so by itself. */
    public static void forceFolder(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            return;
        }
    }

    /**
     * Closes a folder and everything in it to others, whoever had opened it. What is moved or deleted meanwhile is passed over: nobody else
     * comes into the folder any more.
     *
     * @return how many had been open
     */
    public static int closeAll(Path folder) throws IOException {
        int[] open = {0};
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path dir, BasicFileAttributes attributes) throws IOException {
                open[0] += close(dir, FOLDER);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                try {
                    open[0] += attributes.isRegularFile() ? close(file, FILE) : 0;
                } catch (NoSuchFileException e) {
                    return FileVisitResult.CONTINUE;
                }
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException why) throws IOException {
                if (why instanceof NoSuchFileException && !file.equals(folder)) {
                    return FileVisitResult.CONTINUE;
                }
                throw why;
            }
        });
        return open[0];
    }

    private static int close(Path path, Set<PosixFilePermission> allowed) throws IOException {
        if (!Files.getFileStore(path).supportsFileAttributeView("posix")) {
            return 0;
        }
        Set<PosixFilePermission> now = Files.getPosixFilePermissions(path, LinkOption.NOFOLLOW_LINKS);
        if (now.equals(allowed)) {
            return 0;
        }
        Files.setPosixFilePermissions(path, allowed);
        return 1;
    }
}
