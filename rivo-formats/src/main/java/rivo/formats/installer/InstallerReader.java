package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.InstallerFile.Finding;

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
        byte[] head = head(file);
        if (head.length == 0) {
            throw new UnreadableInstallerException("empty-file", fileName
                    + " is empty; fetch it anew from where it came from.");
        }
        InstallerFormat format = recognise(head, fileName);
        try {
            InstallerFile read = Tidied.of(read(format, file, new ReadingBudget()));
            return read.with(findings(read, fileName));
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

    private static InstallerFile read(InstallerFormat format, Path file, ReadingBudget budget)
            throws IOException, UnreadableInstallerException {
        return switch (format) {
            case MSI, MSI_PATCH -> MsiReader.read(file, budget);
            case MSIX, ZIP -> ZipReader.read(file, budget);
            case EXE -> ExeReader.read(file, budget);
            case DEB -> DebReader.read(file, budget);
            case RPM -> RpmReader.read(file, budget);
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, POWERSHELL_SCRIPT, BATCH_FILE, OTHER -> InstallerFile.nothingOf(format);
        };
    }

    private static InstallerFormat recognise(byte[] head, String fileName) {
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
        return Scripts.of(head, fileName).orElse(InstallerFormat.OTHER);
    }

    private static boolean starts(byte[] head, int... bytes) {
        for (int i = 0; i < bytes.length; i++) {
            if (i >= head.length || (head[i] & 0xff) != (bytes[i] & 0xff)) {
                return false;
            }
        }
        return true;
    }

    private static List<Finding> findings(InstallerFile read, String fileName) {
        List<Finding> findings = new ArrayList<>(read.findings());
        Optional<InstallerFormat> claimed = InstallerFormat.claimedBy(fileName);
        // Scripts are commonly named for another shell than the one that their first line names.
        boolean areScripts = read.format().isScript() && claimed.filter(InstallerFormat::isScript).isPresent();
        if (claimed.isPresent() && claimed.get() != read.format() && !areScripts) {
            findings.add(new Finding("not-what-it-says", "The name says " + claimed.get().words() + ", the content is "
                    + read.format().words() + ". Ask where it came from before you use it."));
        }
        boolean signable = switch (read.format()) {
            case MSI, MSI_PATCH, MSIX, EXE -> true;
            default -> false;
        };
        if (signable && read.signer() == null) {
            findings.add(new Finding("unsigned", "It is not signed. Compare its SHA-256 with the one its maker "
                    + "publishes."));
        }
        if (read.signer() != null && read.maker() != null && !sameOrganisation(read.signer(), read.maker())) {
            findings.add(new Finding("signer-is-not-maker", "Signed by " + read.signer() + ", made by " + read.maker()
                    + "."));
        }
        boolean isSetUp = read.findings().stream().noneMatch(finding -> "no-set-up".equals(finding.code()));
        if (read.format() == InstallerFormat.EXE && read.kind() == InstallerKind.UNKNOWN && isSetUp) {
            findings.add(new Finding("unknown-make", "Its set-up kit is not recognised, so no command is proposed: add the one that its maker names "
                    + "for installing it silently."));
        }
        return findings;
    }

    /** Whether two names are of one organisation, but for how such names are commonly written. */
    public static boolean sameOrganisation(@Nullable String one, @Nullable String other) {
        String a = plain(one);
        String b = plain(other);
        return !a.isEmpty() && !b.isEmpty() && (a.equals(b) || a.startsWith(b + " ") || b.startsWith(a + " "));
    }

    private static String plain(@Nullable String name) {
        return name == null ? "" : name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", " ")
                .replaceAll("\\b(inc|ltd|limited|gmbh|llc|corp|corporation|co|plc|ag|sa|bv)\\b", "").strip()
                .replaceAll(" +", " ");
    }
}
