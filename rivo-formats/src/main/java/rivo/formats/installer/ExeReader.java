package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Windows programs: the machine, the version resource, who signed, which set-up kit made it, and what it is if it is no set-up program.
 */
final class ExeReader {

    private static final int VERSION = 16;
    private static final int MANIFEST = 24;
    private static final int MOST_SIGNATURE = 1 << 20;
    private static final int OVERLAY_HEAD = 12;
    private static final int ENTRY_HEAD = 8;
    private static final int PKCS7 = 2;
    private static final int NATIVE = 1;
    private static final int CONSOLE = 3;
    private static final int FIRST_EFI = 10;
    private static final int LAST_EFI = 13;
    private static final Pattern LEVEL = Pattern.compile("requestedExecutionLevel[^>]*\\blevel\\s*=\\s*[\"'](\\w+)[\"']");
    /** A version, and what else stands behind it. */
    private static final Pattern STATED = Pattern.compile("([0-9][0-9A-Za-z.+_-]*)(?:\\s*[(,;\\s].*)?");

    private ExeReader() {
    }

    static InstallerFile read(Path path, ReadingBudget budget) throws IOException {
        try (FileChannel channel = FileChannel.open(path)) {
            PeFile file = new PeFile(channel, budget);
            Map<String, String> told = version(file);
            SetUpKits.Kit kit = SetUpKits.of(file, budget);
            SetUpKits.Registration registers = kit == null ? null : kit.registration();
            InstallerFile.Builder read = InstallerFile.of(InstallerFormat.EXE);
            String what = what(file, kit);
            if (what != null) {
                read.finding("no-set-up", "It is " + what + ". Nothing is proposed for running it.");
            }
            String stated = told.getOrDefault("ProductVersion", told.getOrDefault("FileVersion", told.get(VersionResource.FIXED)));
            String version = stated == null ? null : version(stated);
            if (stated != null && version != null && !version.equals(plain(stated))) {
                read.finding("version-read", "The file states its version as “" + stated + "”; " + version + " was read from that.");
            }
            String level = level(file);
            read.name(told.getOrDefault("ProductName", told.get("FileDescription"))).version(version).maker(told.get("CompanyName"))
                    .description(told.get("FileDescription")).architecture(architecture(file, kit))
                    .kind(kit == null || kit.uninstaller() ? InstallerKind.UNKNOWN : kit.kind()).perMachine(kit == null || !"asInvoker".equals(level))
                    .fact("Set-up kit", kit == null ? null : kit.kind().words()).fact("Asks to run as", level == null ? null : runsAs(level))
                    .signature(signature(file, budget));
            return registers == null ? read.build() : read.name(registers.name()).version(registers.version()).maker(registers.maker()).perMachine(registers.perMachine()).build();
        }
    }

    private static @Nullable String runsAs(String level) {
        return switch (level) {
            case "asInvoker" -> "whoever starts it";
            case "highestAvailable" -> "an administrator, where whoever starts it is one";
            case "requireAdministrator" -> "an administrator";
            default -> null;
        };
    }

    /** What it is instead of a set-up program; null where it is one, or may be. */
    private static @Nullable String what(PeFile file, SetUpKits.@Nullable Kit kit) throws IOException {
        int subsystem = file.subsystem();
        return subsystem >= FIRST_EFI && subsystem <= LAST_EFI ? "an EFI image, for a computer that is being started"
                : subsystem == NATIVE ? "a driver"
                : file.isLibrary() ? "a library, which other programs load"
                : kit != null && kit.uninstaller() ? "an uninstaller, which removes what its set-up program has installed"
                : kit == null && unpacksItself(file) ? "an archive that unpacks itself; what it runs then is not known"
                : kit == null && subsystem == CONSOLE ? "a console program, not a set-up program" : null;
    }

    /** Whether an archive, or what says how to unpack one, lies right behind the program. */
    private static boolean unpacksItself(PeFile file) throws IOException {
        long overlay = file.overlay();
        if (overlay <= 0 || overlay > file.size() - OVERLAY_HEAD) {
            return false;
        }
        String head = StandardCharsets.ISO_8859_1.decode(file.bytes(overlay, OVERLAY_HEAD)).toString();
        return head.startsWith("7z\u00bc\u00af'\u001c") || head.startsWith(";!@Install@!") || head.startsWith("Rar!\u001a") || head.startsWith("PK\u0003\u0004")
                || head.startsWith("MSCF\0\0\0\0");
    }

    /** A set-up program of a known make is 32-bit whatever it installs, so its own machine says nothing. */
    private static @Nullable String architecture(PeFile file, SetUpKits.@Nullable Kit kit) {
        return switch (file.machine()) {
            case 0x8664 -> "x64";
            case 0xAA64 -> "arm64";
            case 0x1c0, 0x1c2, 0x1c4 -> "arm";
            case 0x14c -> kit == null ? "x86" : null;
            default -> null;
        };
    }

    /** As which it asks to run, as its manifest says; null where it says nothing. */
    private static @Nullable String level(PeFile file) throws IOException {
        ByteBuffer manifest = file.resource(MANIFEST, -1);
        Matcher level = LEVEL.matcher(manifest == null ? "" : StandardCharsets.UTF_8.decode(manifest));
        return level.find() ? level.group(1) : null;
    }

    /** Commas count as dots, as resource compilers write them. */
    private static String plain(String stated) {
        return stated.replace(", ", ".").strip();
    }

    /** The version in what is stated; null where none begins it. */
    private static @Nullable String version(String stated) {
        Matcher version = STATED.matcher(plain(stated));
        return version.matches() ? version.group(1) : null;
    }

    private static FileSignature signature(PeFile file, ReadingBudget budget) throws IOException {
        // Unlike all others, this directory is told by its place in the file.
        long[] directory = file.directory(PeFile.CERTIFICATES);
        if (directory == null || directory[1] < ENTRY_HEAD) {
            return FileSignature.NONE;
        }
        ByteBuffer head = file.bytes(directory[0], ENTRY_HEAD);
        int entry = head.getInt();
        if (entry < ENTRY_HEAD || entry > Math.min(directory[1], MOST_SIGNATURE)) {
            throw new IOException("its signature is of no possible length");
        }
        if (head.getShort(6) != PKCS7) {
            return FileSignature.notChecked(null, "its signature is of a kind that is not known");
        }
        CmsSignature signed = CmsSignature.read(file.bytes(directory[0] + ENTRY_HEAD, entry - ENTRY_HEAD).array(), budget);
        MessageDigest digest = signed.digester();
        file.digested(digest, directory[0]);
        FileSignature signature = signed.of(digest.digest());
        return file.size() > directory[0] + directory[1] && signature.state() == FileSignature.State.HOLDS ? signature.changed("something was put behind its signature")
                : signature;
    }

    /** What the version resource tells, by its names. */
    private static Map<String, String> version(PeFile file) throws IOException {
        ByteBuffer resource = file.resource(VERSION, -1);
        Map<String, String> told = new HashMap<>();
        if (resource != null) {
            VersionResource.read(resource, told);
        }
        return told;
    }
}
