package rivo.formats.installer;

import io.airlift.compress.zstd.ZstdInputStream;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.apache.commons.compress.compressors.CompressorStreamFactory;
import org.jspecify.annotations.Nullable;

/**
 * Archives, images and packages of other systems, told by the marks that their own specifications give them. Of those, nothing is read but what they are.
 * Pure functions.
 */
final class Archives {

    private static final int DISK_MARK_AT = 32_769;
    private static final int TAR_MARK_AT = 257;
    private static final int DMG_TRAILER = 512;
    private static final int MOST_MEMORY_KIB = 32 << 10;

    private Archives() {
    }

    /**
     * Empty where it is none of them.
     *
     * @param head the first bytes of the file
     */
    static Optional<InstallerFormat> of(byte[] head, Path file) throws IOException {
        InstallerFormat byHead = byHead(head);
        if (byHead != null) {
            return Optional.of(byHead);
        }
        if (isPackedTar(head, file)) {
            return Optional.of(InstallerFormat.TAR);
        }
        if (is(file, DISK_MARK_AT, "CD001") || is(file, file.toFile().length() - DMG_TRAILER, "koly") || is(file, file.toFile().length() - DMG_TRAILER, "conectix")) {
            return Optional.of(InstallerFormat.DISK_IMAGE);
        }
        return ZipReader.isAtEnd(file) ? Optional.of(InstallerFormat.ZIP) : Optional.empty();
    }

    private static @Nullable InstallerFormat byHead(byte[] head) {
        String text = new String(head, StandardCharsets.ISO_8859_1);
        if (text.startsWith("\u007fELF")) {
            return text.startsWith("AI\u0002", 8) || text.startsWith("AI\u0001", 8) ? InstallerFormat.APP_IMAGE : InstallerFormat.LINUX_PROGRAM;
        }
        return text.startsWith("ustar", TAR_MARK_AT) ? InstallerFormat.TAR
                : text.startsWith("7z\u00bc\u00af'\u001c") ? InstallerFormat.SEVEN_ZIP
                : text.startsWith("Rar!\u001a") ? InstallerFormat.RAR
                : text.startsWith("MSCF\0\0\0\0") ? InstallerFormat.CAB
                : text.startsWith("hsqs") ? InstallerFormat.SNAP
                : text.startsWith("flatpak\0") || text.startsWith("[Flatpak Ref]") ? InstallerFormat.FLATPAK
                : text.startsWith("xar!") ? InstallerFormat.XAR
                : text.startsWith("MSWIM\0") || text.startsWith("vhdxfile") || text.startsWith("conectix") ? InstallerFormat.DISK_IMAGE : null;
    }

    /** Whether what is compressed begins as a tar archive does. */
    private static boolean isPackedTar(byte[] head, Path file) {
        try (InputStream packed = new BufferedInputStream(Files.newInputStream(file));
                InputStream in = new String(head, StandardCharsets.ISO_8859_1).startsWith("(\u00b5/\u00fd") ? new ZstdInputStream(packed)
                        : new CompressorStreamFactory(false, MOST_MEMORY_KIB).createCompressorInputStream(packed)) {
            return new String(in.readNBytes(TAR_MARK_AT + 5), StandardCharsets.ISO_8859_1).startsWith("ustar", TAR_MARK_AT);
        } catch (IOException | RuntimeException e) {
            // It is not compressed, or in a way that nothing here unpacks.
            return false;
        }
    }

    private static boolean is(Path file, long at, String mark) throws IOException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            if (at < 0 || at > in.length() - mark.length()) {
                return false;
            }
            byte[] bytes = new byte[mark.length()];
            in.seek(at);
            in.readFully(bytes);
            return mark.equals(new String(bytes, StandardCharsets.ISO_8859_1));
        }
    }

    /** What can be done with one, as a sentence; empty where the proposal shows it. */
    static String remedy(InstallerFormat format) {
        return switch (format) {
            case SEVEN_ZIP, RAR, CAB -> "Devices cannot unpack it by themselves. Unpack it and drop what is in it, or pack that as a ZIP archive.";
            case DISK_IMAGE -> "Open the image and drop the installer that is in it.";
            case APP_IMAGE, LINUX_PROGRAM -> "It is copied to a folder; add a step where it has to be made executable or started.";
            case FLATPAK, SNAP -> "No command is proposed for it: add the one for installing it.";
            case XAR -> "Rivo installs on Windows and Linux; no command is proposed for macOS.";
            case MERGE_MODULE -> "It is built into other installers, and is none by itself. Drop the installer that holds it.";
            default -> "";
        };
    }
}
