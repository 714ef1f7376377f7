package rivo.formats.installer;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;

/**
 * How much a compound file ([MS-CFB]) would make its reader hold, found out before it is opened: the sectors of its allocation tables, and
 * the entries of its directory, which are followed through the tables without holding either.
 */
final class CompoundFileBounds {

    /** An installer database has some hundred streams. */
    private static final int MOST_ENTRIES = 20_000;
    private static final int ENTRY = 128;
    private static final int HEADER_TABLES = 109;
    private static final int END = 0xfffffffe;

    private final FileChannel file;
    private final int shift;
    private final ReadingBudget budget;

    private CompoundFileBounds(FileChannel file, int shift, ReadingBudget budget) {
        this.file = file;
        this.shift = shift;
        this.budget = budget;
    }

    /** @throws ReadingBudget.ExceededException when it would be too much */
    static void check(Path path, ReadingBudget budget) throws IOException {
        try (FileChannel file = FileChannel.open(path)) {
            ByteBuffer header = bytes(file, 0, 512);
            int shift = header.getShort(30);
            if (shift != 9 && shift != 12) {
                throw new IOException("its sectors have no possible size");
            }
            long sector = 1L << shift;
            long tables = header.getInt(44) & 0xffffffffL;
            long small = header.getInt(64) & 0xffffffffL;
            long more = header.getInt(72) & 0xffffffffL;
            if ((tables + small + more) * sector > file.size() + sector) {
                throw new IOException("its tables are said to be larger than itself");
            }
            // Held as bytes, and again as numbers.
            budget.hold(2 * (tables + small + more) * sector);
            new CompoundFileBounds(file, shift, budget).directory(header, (int) tables);
        }
    }

    private void directory(ByteBuffer header, int tables) throws IOException {
        int[] places = places(header, tables);
        int sector = header.getInt(48);
        int most = MOST_ENTRIES * ENTRY >> shift;
        for (int count = 0; sector != END; count++) {
            if (count > most) {
                throw new ReadingBudget.ExceededException("its directory has more than " + MOST_ENTRIES + " entries");
            }
            // An entry comes to many times its own size.
            budget.hold(8L << shift);
            sector = next(places, sector);
        }
    }

    /** In which sectors the allocation table lies: the first ones as the header says, the rest by a list of its own. */
    private int[] places(ByteBuffer header, int tables) throws IOException {
        int[] places = new int[tables];
        int perSector = (1 << shift - 2) - 1;
        int list = header.getInt(68);
        ByteBuffer more = header;
        for (int i = 0; i < tables; i++) {
            int within = i < HEADER_TABLES ? i : (i - HEADER_TABLES) % perSector;
            if (i >= HEADER_TABLES && within == 0) {
                more = bytes(file, place(list), 1 << shift);
                list = more.getInt(4 * perSector);
                budget.work(1L << shift);
            }
            places[i] = more.getInt(4 * within + (i < HEADER_TABLES ? 76 : 0));
        }
        return places;
    }

    private long place(int sector) throws IOException {
        if (sector < 0) {
            throw new IOException("its tables lead nowhere");
        }
        return sector + 1L << shift;
    }

    private int next(int[] places, int sector) throws IOException {
        int perTable = 1 << shift - 2;
        if (sector < 0 || sector / perTable >= places.length) {
            throw new IOException("its directory leads nowhere");
        }
        return bytes(file, place(places[sector / perTable]) + 4L * (sector % perTable), 4).getInt();
    }

    private static ByteBuffer bytes(FileChannel file, long at, int length) throws IOException {
        ByteBuffer buffer = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
        while (buffer.hasRemaining()) {
            if (at < 0 || file.read(buffer, at + buffer.position()) < 0) {
                throw new EOFException("it is cut short");
            }
        }
        return buffer.flip();
    }
}
