package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The structure of a Windows program, library, driver or EFI image ("PE Format", Microsoft's specification of it): headers, sections, directories
 * and resources. Nothing is held but what is asked for. Used by one thread.
 */
final class PeFile {

    static final int EXPORTS = 0;
    static final int RESOURCES = 2;
    static final int CERTIFICATES = 4;

    private static final int SIGNATURE = 0x4550;
    private static final int COFF_LENGTH = 24;
    private static final int SECTION_LENGTH = 40;
    private static final int MOST_SECTIONS = 96;
    private static final int MOST_ENTRIES = 1000;
    private static final int MOST_RESOURCE = 1 << 20;
    private static final int LIBRARY = 0x2000;
    private static final int ENGLISH = 0x09;
    private static final int LANGUAGE = 0x3ff;
    private static final int DEEPEST = 2;

    /** @param data where it lies in the file, and how long */
    record Section(String name, long address, long data, long size) {
    }

    private final FileChannel file;
    private final ReadingBudget budget;
    private final List<Section> sections = new ArrayList<>();
    private final int machine;
    private final boolean library;
    private final int subsystem;
    private final ByteBuffer directories;
    /** Where the checksum stands, and the place and length of the certificates: what a signature is not over. */
    private final long checksumAt;
    private final long certificatesAt;

    PeFile(FileChannel file, ReadingBudget budget) throws IOException {
        this.file = file;
        this.budget = budget;
        long header = bytes(0x3c, 4).getInt() & 0xffffffffL;
        ByteBuffer coff = bytes(header, COFF_LENGTH);
        if (coff.getInt() != SIGNATURE) {
            throw new IOException("it has no PE header");
        }
        machine = coff.getShort() & 0xffff;
        int count = Math.min(MOST_SECTIONS, coff.getShort() & 0xffff);
        int optional = coff.getShort(20) & 0xffff;
        library = (coff.getShort(22) & LIBRARY) != 0;
        long optionalAt = header + COFF_LENGTH;
        int skipped = bytes(optionalAt, 2).getShort() == 0x20b ? 112 : 96;
        subsystem = optional < 70 ? 0 : bytes(optionalAt + 68, 2).getShort() & 0xffff;
        checksumAt = optionalAt + 64;
        certificatesAt = optionalAt + skipped + 8L * CERTIFICATES;
        directories = bytes(optionalAt + skipped, Math.max(0, Math.min(128, optional - skipped)));
        ByteBuffer table = bytes(optionalAt + optional, count * SECTION_LENGTH);
        for (int i = 0; i < count; i++) {
            byte[] name = new byte[8];
            table.get(i * SECTION_LENGTH, name);
            sections.add(new Section(new String(name, StandardCharsets.ISO_8859_1).replace("\0", ""), word(table, i, 12), word(table, i, 20), word(table, i, 16)));
        }
    }

    private static long word(ByteBuffer table, int section, int at) {
        return table.getInt(section * SECTION_LENGTH + at) & 0xffffffffL;
    }

    /** @throws IOException where the file has not so many bytes there */
    ByteBuffer bytes(long at, int length) throws IOException {
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

    /** Adds all that a signature is over: everything before the certificates, but for the checksum and what says where they are. */
    void digested(MessageDigest digest, long certificates) throws IOException {
        digested(digest, 0, checksumAt);
        digested(digest, checksumAt + 4, certificatesAt);
        digested(digest, certificatesAt + 8, certificates);
    }

    private void digested(MessageDigest digest, long from, long to) throws IOException {
        ByteBuffer part = ByteBuffer.allocate(1 << 16);
        for (long at = from; at < to; at += part.limit()) {
            part.clear().limit((int) Math.min(part.capacity(), to - at));
            while (part.hasRemaining() && file.read(part, at + part.position()) >= 0) {
                // Until it is full.
            }
            if (part.hasRemaining()) {
                throw new IOException("it points beyond its own end");
            }
            digest.update(part.flip());
        }
    }

    long size() throws IOException {
        return file.size();
    }

    int machine() {
        return machine;
    }

    /** Whether other programs load it. */
    boolean isLibrary() {
        return library;
    }

    /** What it runs under; 0 where it does not say. */
    int subsystem() {
        return subsystem;
    }

    List<Section> sections() {
        return List.copyOf(sections);
    }

    /** Where what no section holds begins: set-up programs carry their files there. */
    long overlay() {
        return sections.stream().mapToLong(section -> section.data() + section.size()).max().orElse(0);
    }

    /** The address and length of a directory; null where there is none. */
    long @Nullable [] directory(int number) {
        int at = 8 * number;
        return directories.limit() < at + 8 || directories.getInt(at) == 0 ? null
                : new long[] {directories.getInt(at) & 0xffffffffL, directories.getInt(at + 4) & 0xffffffffL};
    }

    /**
     * A resource, in English or no language where there are several.
     *
     * @param name its number; -1 for the first
     * @return null where there is none of that type
     */
    @Nullable ByteBuffer resource(int type, int name) throws IOException {
        long[] directory = directory(RESOURCES);
        if (directory == null) {
            return null;
        }
        long root = place(directory[0]);
        long data = leaf(root, root, new int[] {type, name, -1}, 0);
        if (data < 0) {
            return null;
        }
        ByteBuffer entry = bytes(data, 8);
        long address = entry.getInt() & 0xffffffffL;
        int length = entry.getInt();
        if (length < 0 || length > MOST_RESOURCE) {
            throw new IOException("a resource is of no possible length");
        }
        return bytes(place(address), length);
    }

    /** Type, name and language, one below the other; -1 where there is nothing of the wanted numbers. */
    private long leaf(long root, long table, int[] wanted, int depth) throws IOException {
        ByteBuffer head = bytes(table, 16);
        int entries = Math.min(MOST_ENTRIES, (head.getShort(12) & 0xffff) + (head.getShort(14) & 0xffff));
        ByteBuffer all = bytes(table + 16, entries * 8);
        int chosen = -1;
        for (int i = 0; i < entries && depth <= DEEPEST; i++) {
            int id = all.getInt(i * 8);
            boolean fits = wanted[depth] < 0 || id == wanted[depth];
            boolean isBetter = chosen < 0 || depth == DEEPEST && rank(id) < rank(all.getInt(chosen * 8));
            chosen = fits && isBetter ? i : chosen;
        }
        if (chosen < 0) {
            return -1;
        }
        int to = all.getInt(chosen * 8 + 4);
        return to >= 0 ? root + to : leaf(root, root + (to & 0x7fffffff), wanted, depth + 1);
    }

    private static int rank(int language) {
        int primary = language & LANGUAGE;
        return primary == ENGLISH ? 0 : primary == 0 ? 1 : 2;
    }

    /** The place in the file of an address in memory. */
    private long place(long address) throws IOException {
        for (Section section : sections) {
            if (address >= section.address() && address < section.address() + section.size()) {
                return address - section.address() + section.data();
            }
        }
        throw new IOException("an address lies in none of its sections");
    }
}
