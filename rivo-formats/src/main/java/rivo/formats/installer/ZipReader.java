package rivo.formats.installer;

import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/** ZIP archives (APPNOTE), also behind something else, and among them MSIX packages: those with a manifest. */
final class ZipReader {

    /** An entry has 46 bytes and its name. */
    private static final int MOST_DIRECTORY = 12 << 20;
    private static final int MOST_ENTRIES = 100_000;
    /** What an entry and its name come to while they are looked at. */
    private static final int ENTRY_COSTS = 320;
    /** What an archive may come to when it is unpacked, in bytes, before it is asked how many times its own size that is. */
    private static final long HARMLESS = 1L << 30;
    private static final int MOST_TIMES = 200;
    private static final int END_LENGTH = 22;
    private static final int LOCATOR_LENGTH = 20;
    private static final int ZIP64_LENGTH = 56;
    private static final int MOST_SHOWN = 12;
    private static final Set<InstallerFormat> INSTALLERS = Set.of(InstallerFormat.MSI, InstallerFormat.MSIX, InstallerFormat.EXE, InstallerFormat.DEB,
            InstallerFormat.RPM);

    private ZipReader() {
    }

    static InstallerFile read(Path file, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        checkDirectory(file, budget);
        try (ZipFile zip = new ZipFile(file.toFile())) {
            check(zip, Files.size(file), budget);
            boolean isPackage = zip.getEntry(MsixReader.BUNDLE_MANIFEST) != null || zip.getEntry(MsixReader.MANIFEST) != null;
            return isPackage ? MsixReader.read(zip, budget) : archive(zip, budget);
        }
    }

    /** What is in it; where one of its files alone is an installer, what that tells, too. */
    private static InstallerFile archive(ZipFile zip, ReadingBudget budget) throws IOException {
        List<ZipEntry> installers = new ArrayList<>();
        List<String> names = new ArrayList<>();
        Enumeration<? extends ZipEntry> entries = zip.entries();
        while (entries.hasMoreElements()) {
            ZipEntry one = entries.nextElement();
            if (!one.isDirectory()) {
                names.add(one.getName());
                boolean isInstaller = InstallerFormat.claimedBy(one.getName()).filter(INSTALLERS::contains).isPresent();
                if (isInstaller) {
                    installers.add(one);
                }
            }
        }
        InstallerFile.Builder told = InstallerFile.of(InstallerFormat.ZIP)
                .fact("Contains", names.size() + (names.size() == 1 ? " file: " : " files: ") + names.stream().limit(MOST_SHOWN).map(ZipReader::shown)
                        .collect(Collectors.joining(", ")) + (names.size() > MOST_SHOWN ? ", …" : ""));
        if (installers.size() > 1) {
            told.finding("several-installers", "It contains " + installers.size() + " installers: " + installers.stream().limit(MOST_SHOWN).map(one -> shown(one.getName()))
                    .collect(Collectors.joining(", ")) + ". Nothing is proposed for running one of them: add the command, or drop the one that you mean.");
        } else if (!installers.isEmpty()) {
            inside(zip, installers.get(0), told, budget);
        }
        return told.build();
    }

    private static void inside(ZipFile zip, ZipEntry entry, InstallerFile.Builder told, ReadingBudget budget) throws IOException {
        try (Unpacked unpacked = Unpacked.of(zip, entry, budget)) {
            InstallerFile file = unpacked == null ? null : InstallerReader.inside(unpacked.file(), entry.getName(), budget);
            if (file != null && INSTALLERS.contains(file.format())) {
                told.inside(new InstallerFile.Inside(entry.getName(), file));
                return;
            }
        } catch (UnreadableInstallerException e) {
            told.finding("inside-unread", "Of " + shown(entry.getName()) + " in it: " + e.getMessage());
            return;
        }
        told.finding("inside-unread", shown(entry.getName()) + " in it could not be read. Unpack the archive and drop that file.");
    }

    /** Before any of it is held: the central directory's length, by the record at the file's end (APPNOTE, 4.3.16 and 4.3.14). */
    static void checkDirectory(Path file, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            int length = (int) Math.min(in.length(), END_LENGTH + 0xffff);
            ByteBuffer bytes = read(in, in.length() - length, length);
            for (int at = length - END_LENGTH; at >= 0; at--) {
                if (bytes.getInt(at) == 0x06054b50) {
                    long entries = bytes.getShort(at + 10) & 0xffff;
                    long directory = bytes.getInt(at + 12) & 0xffffffffL;
                    if (entries == 0xffff || directory == 0xffffffffL) {
                        long locator = in.length() - length + at - LOCATOR_LENGTH;
                        ByteBuffer large = locator < 0 ? ByteBuffer.allocate(0) : zip64(in, locator);
                        entries = large.limit() == 0 ? entries : large.getLong(32);
                        directory = large.limit() == 0 ? directory : large.getLong(40);
                    }
                    if (directory < 0 || directory > MOST_DIRECTORY || entries < 0 || entries > MOST_ENTRIES) {
                        throw hostile("its list of entries alone has " + directory + " bytes, for " + entries + " entries");
                    }
                    budget.hold(directory);
                    return;
                }
            }
            throw new IOException("its end is missing");
        }
    }

    /** Whether it ends as an archive does: whoever makes one that unpacks itself puts something before it. */
    static boolean isAtEnd(Path file) throws IOException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            int length = (int) Math.min(in.length(), END_LENGTH + 0xffff);
            ByteBuffer bytes = read(in, in.length() - length, length);
            for (int at = length - END_LENGTH; at >= 0; at--) {
                if (bytes.getInt(at) == 0x06054b50 && (bytes.getShort(at + 20) & 0xffff) == length - END_LENGTH - at) {
                    return true;
                }
            }
            return false;
        }
    }

    /** The record that stands in where numbers of 32 bits are too small; empty where there is none. */
    private static ByteBuffer zip64(RandomAccessFile in, long locator) throws IOException {
        ByteBuffer found = read(in, locator, LOCATOR_LENGTH);
        if (found.getInt(0) != 0x07064b50 || found.getLong(8) < 0 || found.getLong(8) > in.length() - ZIP64_LENGTH) {
            return ByteBuffer.allocate(0);
        }
        ByteBuffer record = read(in, found.getLong(8), ZIP64_LENGTH);
        return record.getInt(0) == 0x06064b50 ? record : ByteBuffer.allocate(0);
    }

    private static ByteBuffer read(RandomAccessFile in, long at, int length) throws IOException {
        byte[] bytes = new byte[length];
        in.seek(at);
        in.readFully(bytes);
        return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static void check(ZipFile zip, long size, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        if (zip.size() > MOST_ENTRIES) {
            throw hostile("it has " + zip.size() + " entries, more than " + MOST_ENTRIES);
        }
        long unpacked = 0;
        Enumeration<? extends ZipEntry> entries = zip.entries();
        while (entries.hasMoreElements()) {
            ZipEntry entry = entries.nextElement();
            budget.hold(ENTRY_COSTS + 2L * entry.getName().length());
            if (leadsOutside(entry.getName())) {
                throw hostile("its entry " + shown(entry.getName()) + " would be put outside the folder it is unpacked in");
            }
            unpacked += Math.max(0, entry.getSize());
        }
        if (unpacked < 0 || unpacked > HARMLESS && unpacked / MOST_TIMES > size) {
            throw hostile("unpacked it would come to " + unpacked / (1 << 20) + " MiB, more than " + MOST_TIMES
                    + " times its size");
        }
    }

    /** Whether a name is absolute, or has a part that goes up; both kinds of slashes part it. */
    private static boolean leadsOutside(String name) {
        boolean isOnDrive = name.length() > 1 && name.charAt(1) == ':' && Character.isLetter(name.charAt(0));
        if (name.startsWith("/") || name.startsWith("\\") || isOnDrive) {
            return true;
        }
        int part = 0;
        for (int i = 0; i <= name.length(); i++) {
            if (i == name.length() || name.charAt(i) == '/' || name.charAt(i) == '\\') {
                if (i - part == 2 && name.startsWith("..", part)) {
                    return true;
                }
                part = i + 1;
            }
        }
        return false;
    }

    private static String shown(String name) {
        return name.length() > 100 ? name.substring(0, 100) + "…" : name;
    }

    private static UnreadableInstallerException hostile(String what) {
        return new UnreadableInstallerException("hostile-file", "This archive is not taken: " + what
                + ". Ask where it came from, or pack it anew.");
    }

    static byte[] bounded(ZipFile zip, ZipEntry entry, int most, ReadingBudget budget) throws IOException {
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] bytes = in.readNBytes(most + 1);
            budget.hold(2L * bytes.length);
            if (bytes.length > most) {
                throw new ReadingBudget.ExceededException(entry.getName() + " is longer than " + (most >> 10) + " KiB");
            }
            return bytes;
        }
    }
}
