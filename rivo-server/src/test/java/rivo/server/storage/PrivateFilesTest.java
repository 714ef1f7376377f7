package rivo.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PrivateFilesTest {

    @TempDir
    private Path folder;

    private static String mode(Path path) throws IOException {
        return PosixFilePermissions.toString(Files.getPosixFilePermissions(path));
    }

    @Test
    void whatIsWrittenIsItsOwnersAlone() throws IOException {
        Path file = PrivateFiles.write(PrivateFiles.folder(folder.resolve("keys")).resolve("a.key"), "secret");
        assertThat(mode(file)).isEqualTo("rw-------");
        assertThat(mode(file.getParent())).isEqualTo("rwx------");
        assertThat(file).hasContent("secret");
        assertThat(folder.resolve("keys")).isDirectoryNotContaining("glob:**.part");
    }

    @Test
    void whatOthersCouldReadIsClosedAtTheStart() throws IOException {
        Path open = Files.createDirectories(folder.resolve("content/deep"));
        Path file = Files.writeString(open.resolve("x"), "x");
        Files.setPosixFilePermissions(open, PosixFilePermissions.fromString("rwxrwxrwx"));
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw-r--"));
        Files.createSymbolicLink(folder.resolve("link"), Path.of("/etc/hostname"));
        assertThat(PrivateFiles.closeAll(folder)).isGreaterThanOrEqualTo(2);
        assertThat(mode(open)).isEqualTo("rwx------");
        assertThat(mode(file)).isEqualTo("rw-------");
        assertThat(PrivateFiles.closeAll(folder)).as("nothing is left open").isZero();
    }

    @Test
    void whatIsMovedMeanwhileIsPassedOver() throws Exception {
        Path part = folder.resolve("directory.ldif.part");
        CompletableFuture<Void> moving = CompletableFuture.runAsync(() -> {
            try {
                for (int i = 0; i < 2_000; i++) {
                    Files.move(Files.writeString(part, "x"), folder.resolve("directory.ldif"), StandardCopyOption.REPLACE_EXISTING);
                }
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        });
        while (!moving.isDone()) {
            PrivateFiles.closeAll(folder);
        }
        moving.get();
        assertThatThrownBy(() -> PrivateFiles.closeAll(folder.resolve("none"))).isInstanceOf(NoSuchFileException.class);
    }
}
