package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * Recognises an installer file by its content and reads it, within {@link ReadingBudget}: 64 MiB and five seconds of processor time,
 * whatever the file says. Safe for any thread.
 */
public final class InstallerReader {

    private static final int HEAD = 4096;

    private InstallerReader() {
    }

    /**
     * @param fileName under which it was given; it may claim another format than the content has
     * @throws UnreadableInstallerException when the file is empty, damaged or made to do harm
     * @throws IOException when the file cannot be read from the disk
     */
    public static InstallerFile read(Path file, String fileName) throws IOException, UnreadableInstallerException {
        return read(file, fileName, List.of());
    }

    /**
     * The same, with signatures by these OpenPGP keys checked.
     *
     * @param keys armoured or not
     */
    public static InstallerFile read(Path file, String fileName, List<byte[]> keys) throws IOException, UnreadableInstallerException {
        return read(file, fileName, keys, new ReadingBudget());
    }

    /** Of one that was unpacked from an archive, within what is left of the archive's budget. */
    static InstallerFile inside(Path file, String name, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        return read(file, name.substring(name.lastIndexOf('/') + 1), List.of(), budget);
    }

    private static InstallerFile read(Path file, String fileName, List<byte[]> keys, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        byte[] head = head(file);
        if (head.length == 0) {
            throw new UnreadableInstallerException("empty-file", fileName
                    + " is empty; fetch it anew from where it came from.");
        }
        InstallerFormat format = recognise(head, file, fileName);
        try {
            InstallerFile read = read(format, file, keys, budget);
            return Tidied.of(withFindings(read, fileName));
        } catch (ReadingBudget.ExceededException e) {
            throw new UnreadableInstallerException("hostile-file", fileName + " is not taken: " + e.getMessage()
                    + ". Ask where it came from, or pack it anew.");
        } catch (IOException | RuntimeException | StackOverflowError e) {
            if (!Files.isReadable(file)) {
                throw e;
            }
            throw new UnreadableInstallerException("damaged-file", fileName + " is " + format.words()
                    + ", but damaged or cut short (" + reason(e) + "); fetch it anew from where it came from.");
        }
    }

    private static String reason(Throwable e) {
        String message = e.getMessage();
        String text = message == null ? e.getClass().getSimpleName() : message.replaceAll("\\s+", " ");
        return text.length() > 160 ? text.substring(0, 160) + "…" : text;
    }

    private static byte[] head(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file)) {
            ByteBuffer buffer = ByteBuffer.allocate((int) Math.min(HEAD, channel.size()));
            while (buffer.hasRemaining() && channel.read(buffer) >= 0) {
                // Until it is full.
            }
            return buffer.array();
        }
    }

    private static InstallerFile read(InstallerFormat format, Path file, List<byte[]> keys, ReadingBudget budget)
            throws IOException, UnreadableInstallerException {
        return switch (format) {
            case MSI, MSI_PATCH, MSI_TRANSFORM, MERGE_MODULE -> MsiReader.read(file, budget);
            case MSIX, ZIP -> ZipReader.read(file, budget);
            case EXE -> ExeReader.read(file, budget);
            case DEB -> DebReader.read(file, keys, budget);
            case RPM -> RpmReader.read(file, keys, budget);
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, POWERSHELL_SCRIPT, BATCH_FILE, TAR, SEVEN_ZIP, RAR, CAB, DISK_IMAGE, APP_IMAGE,
                    LINUX_PROGRAM, FLATPAK, SNAP, XAR, OTHER -> InstallerFile.of(format).build();
        };
    }

    private static InstallerFormat recognise(byte[] head, Path file, String fileName) throws IOException {
        if (starts(head, 0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1)) {
            return InstallerFormat.MSI;
        }
        if (starts(head, 'P', 'K', 3, 4) || starts(head, 'P', 'K', 5, 6)) {
            return InstallerFormat.ZIP;
        }
        if (starts(head, 'M', 'Z')) {
            return InstallerFormat.EXE;
        }
        if (starts(head, '!', '<', 'a', 'r', 'c', 'h', '>', '\n')) {
            return InstallerFormat.DEB;
        }
        if (starts(head, 0xED, 0xAB, 0xEE, 0xDB)) {
            return InstallerFormat.RPM;
        }
        Optional<InstallerFormat> script = Scripts.of(head, fileName);
        return script.isPresent() ? script.get() : Archives.of(head, file).orElse(InstallerFormat.OTHER);
    }

    private static boolean starts(byte[] head, int... bytes) {
        for (int i = 0; i < bytes.length; i++) {
            if (i >= head.length || (head[i] & 0xff) != (bytes[i] & 0xff)) {
                return false;
            }
        }
        return true;
    }

    private static InstallerFile withFindings(InstallerFile read, String fileName) {
        InstallerFile.Builder more = read.more();
        Optional<InstallerFormat> claimed = InstallerFormat.claimedBy(fileName);
        // Scripts are commonly named for another shell than the one that their first line names; what else there is has no ending of its own.
        boolean areScripts = read.format().isScript() && claimed.filter(InstallerFormat::isScript).isPresent();
        boolean isKindOfImage = claimed.filter(format -> format == InstallerFormat.LINUX_PROGRAM || format == InstallerFormat.DISK_IMAGE).isPresent();
        if (claimed.isPresent() && claimed.get() != read.format() && !areScripts && !isKindOfImage) {
            more.finding("not-what-it-says", "The name says " + claimed.get().words() + ", the content is "
                    + read.format().words() + ". Ask where it came from before you use it.");
        }
        boolean signable = switch (read.format()) {
            case MSI, MSI_PATCH, MSIX, EXE -> true;
            default -> false;
        };
        if (signable && read.signature().state() == FileSignature.State.NONE) {
            more.finding("unsigned", "It is not signed. Compare its SHA-256 with the one its maker "
                    + "publishes.");
        }
        if (read.signature().state() == FileSignature.State.CHANGED) {
            more.finding("changed", "Its signature does not hold. Fetch the file anew from its maker: a release with it is not offered unless somebody says why it shall "
                    + "be.");
        }
        if (!read.signature().weakness().isEmpty()) {
            more.finding("weak-signature", "It is " + read.signature().weakness() + ". Compare its SHA-256 with the one its maker publishes.");
        }
        boolean isSetUp = read.findings().stream().noneMatch(finding -> "no-set-up".equals(finding.code()));
        if (read.format() == InstallerFormat.EXE && read.kind() == InstallerKind.UNKNOWN && isSetUp) {
            more.finding("unknown-make", "Its set-up kit is not recognised, so no command is proposed: add the one that its maker names "
                    + "for installing it silently.");
        }
        String remedy = Archives.remedy(read.format());
        if (!remedy.isEmpty()) {
            more.finding("no-installer", "It is " + read.format().words() + ". " + remedy);
        }
        return more.build();
    }
}
