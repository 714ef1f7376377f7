package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Windows programs (the PE format): the machine, the version resource, who signed, and which make of set-up program it is.
 */
final class ExeReader {

    private static final int RESOURCES = 2;
    private static final int CERTIFICATES = 4;
    private static final int VERSION = 16;
    private static final int MOST_RESOURCE = 1 << 20;
    private static final int MOST_SIGNATURE = 1 << 20;
    /** How much of the file is searched for marks, from its front. */
    private static final int SEARCHED = 4 << 20;
    private static final int SECTION_LENGTH = 40;
    private static final int MOST_SECTIONS = 96;

    private final FileChannel file;
    private final ReadingBudget budget;
    private final int sections;
    private final long sectionsAt;
    private final int machine;
    private final ByteBuffer directories;

    private ExeReader(FileChannel file, ReadingBudget budget) throws IOException {
        this.file = file;
        this.budget = budget;
        long header = bytes(0x3c, 4).getInt() & 0xffffffffL;
        ByteBuffer coff = bytes(header, 24);
        if (coff.getInt() != 0x4550) {
            throw new IOException("it has no PE header");
        }
        this.machine = coff.getShort() & 0xffff;
        this.sections = Math.min(MOST_SECTIONS, coff.getShort() & 0xffff);
        int optional = coff.getShort(20) & 0xffff;
        this.sectionsAt = header + 24 + optional;
        ByteBuffer magic = bytes(header + 24, 2);
        int skipped = magic.getShort() == 0x20b ? 112 : 96;
        this.directories = bytes(header + 24 + skipped, Math.max(0, Math.min(128, optional - skipped)));
    }

    static InstallerFile read(Path path, ReadingBudget budget) throws IOException {
        try (FileChannel file = FileChannel.open(path)) {
            ExeReader reader = new ExeReader(file, budget);
            Map<String, String> told = reader.version();
            String front = reader.front();
            String version = told.getOrDefault("ProductVersion", told.get("FileVersion"));
            InstallerKind kind = kind(front);
            return new InstallerFile(InstallerFormat.EXE, told.getOrDefault("ProductName", told.get("FileDescription")),
                    version == null ? null : version.replace(", ", ".").strip(), told.get("CompanyName"),
                    told.get("FileDescription"), reader.architecture(kind), null, null, null, kind, true,
                    reader.signer(), List.of(), List.of());
        }
    }

    private ByteBuffer bytes(long at, int length) throws IOException {
        if (at < 0 || length < 0 || at > file.size() - length) {
            throw new IOException("it points beyond its own end");
        }
        budget.hold(length);
        ByteBuffer buffer = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
        while (buffer.hasRemaining() && file.read(buffer, at + buffer.position()) >= 0) {
            // Until it is full.
        }
        return buffer.flip();
    }

    /** A set-up program of a known make is 32-bit whatever it installs, so its own machine says nothing. */
    private @Nullable String architecture(InstallerKind kind) {
        return switch (machine) {
            case 0x8664 -> "x64";
            case 0xAA64 -> "arm64";
            case 0x14c -> kind == InstallerKind.UNKNOWN ? "x86" : null;
            default -> null;
        };
    }

    private String front() throws IOException {
        budget.hold(Math.min(SEARCHED, file.size()));
        byte[] bytes = bytes(0, (int) Math.min(SEARCHED, file.size())).array();
        return new String(bytes, StandardCharsets.ISO_8859_1);
    }

    private static InstallerKind kind(String front) {
        for (InstallerKind kind : InstallerKind.values()) {
            for (String mark : kind.marks()) {
                if (front.contains(mark) || front.contains(String.join("\0", mark.split("")))) {
                    return kind;
                }
            }
        }
        return InstallerKind.UNKNOWN;
    }

    private @Nullable String signer() throws IOException {
        if (directories.limit() < 8 * (CERTIFICATES + 1)) {
            return null;
        }
        // Unlike all others, this directory is told by its place in the file.
        long at = directories.getInt(8 * CERTIFICATES) & 0xffffffffL;
        int length = directories.getInt(8 * CERTIFICATES + 4);
        if (at == 0 || length < 8) {
            return null;
        }
        int entry = bytes(at, 8).getInt();
        if (entry < 8 || entry > Math.min(length, MOST_SIGNATURE)) {
            throw new IOException("its signature is of no possible length");
        }
        return Signers.of(bytes(at + 8, entry - 8).array(), budget);
    }

    /** What the version resource tells, by its names. */
    private Map<String, String> version() throws IOException {
        if (directories.limit() < 8 * (RESOURCES + 1) || directories.getInt(8 * RESOURCES) == 0) {
            return Map.of();
        }
        long root = place(directories.getInt(8 * RESOURCES) & 0xffffffffL);
        long data = leaf(root, root, VERSION, 0);
        if (data < 0) {
            return Map.of();
        }
        ByteBuffer entry = bytes(data, 8);
        long address = entry.getInt() & 0xffffffffL;
        int length = entry.getInt();
        if (length < 0 || length > MOST_RESOURCE) {
            throw new IOException("its version resource is of no possible length");
        }
        Map<String, String> told = new HashMap<>();
        VersionResource.read(bytes(place(address), length), told);
        return told;
    }

    /** The first leaf below the wanted type: type, name, language, then data. -1 when there is none. */
    private long leaf(long root, long table, int wanted, int depth) throws IOException {
        ByteBuffer head = bytes(table, 16);
        int entries = Math.min(1000, (head.getShort(12) & 0xffff) + (head.getShort(14) & 0xffff));
        ByteBuffer all = bytes(table + 16, entries * 8);
        for (int i = 0; i < entries; i++) {
            int id = all.getInt();
            int to = all.getInt();
            if (depth == 0 && id != wanted) {
                continue;
            }
            if (to >= 0) {
                return root + to;
            }
            return depth < 3 ? leaf(root, root + (to & 0x7fffffff), wanted, depth + 1) : -1;
        }
        return -1;
    }

    /** The place in the file of an address in memory. */
    private long place(long address) throws IOException {
        ByteBuffer all = bytes(sectionsAt, sections * SECTION_LENGTH);
        for (int i = 0; i < sections; i++) {
            long size = all.getInt(i * SECTION_LENGTH + 16) & 0xffffffffL;
            long from = all.getInt(i * SECTION_LENGTH + 12) & 0xffffffffL;
            if (address >= from && address < from + size) {
                return address - from + (all.getInt(i * SECTION_LENGTH + 20) & 0xffffffffL);
            }
        }
        throw new IOException("an address lies in none of its sections");
    }
}
