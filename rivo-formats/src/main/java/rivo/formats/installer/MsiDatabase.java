package rivo.formats.installer;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.poi.poifs.filesystem.DirectoryNode;
import org.apache.poi.poifs.filesystem.DocumentEntry;
import org.apache.poi.poifs.filesystem.DocumentInputStream;
import org.apache.poi.poifs.filesystem.Entry;
import org.jspecify.annotations.Nullable;

/**
 * The streams and tables of a Windows Installer database, an OLE2 compound file ([MS-CFB]). Used by one thread.
 *
 * <p><b>How.</b> Stream names are packed, two letters into one. All texts lie in a pool, which tables refer to by number;
 * a table lies column by column, and {@code _Columns} tells of each how wide it is. Only what is asked for is read.
 */
final class MsiDatabase {

    private static final int MOST = 8 << 20;
    private static final int MOST_NOT_TABLES = 1 << 20;
    private static final int MOST_ROWS = 100_000;
    private static final String LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz._";
    private static final int TEXT = 0x0800;
    private static final int STREAM = 0x0900;
    private static final int NULLABLE = 0x1000;
    private static final int KEY = 0x2000;
    /** Of the columns that are read by name: those that any table has are looked up in this one. */
    private static final List<Column> OF_COLUMNS = List.of(new Column("Table", TEXT), new Column("Number", 2), new Column("Name", TEXT), new Column("Type", 2));

    private record Column(String name, int type) {

        boolean isText() {
            return (type & TEXT) != 0 && !isStream();
        }

        private boolean isStream() {
            return (type & ~(NULLABLE | KEY)) == STREAM;
        }

        int width(int reference) {
            return isText() ? reference : isStream() || (type & 0xff) <= 2 ? 2 : 4;
        }
    }

    private final DirectoryNode root;
    private final ReadingBudget budget;
    private final Map<String, String> names = new HashMap<>();
    private final int reference;
    private final @Nullable TextPool texts;
    private final Map<String, List<Column>> columns = new HashMap<>();

    MsiDatabase(DirectoryNode root, ReadingBudget budget) throws IOException {
        this.root = root;
        this.budget = budget;
        for (Entry entry : root) {
            budget.hold(200);
            names.put(unpacked(entry.getName()), entry.getName());
        }
        byte[] pool = bytes("!_StringPool");
        byte[] data = bytes("!_StringData");
        if (pool == null) {
            reference = 2;
            texts = null;
            return;
        }
        if (pool.length < 4 || data == null) {
            throw new IOException("its texts are missing");
        }
        ByteBuffer little = ByteBuffer.wrap(pool).order(ByteOrder.LITTLE_ENDIAN);
        int codepage = little.getShort() & 0xffff;
        reference = (little.getShort() & 0x8000) != 0 ? 3 : 2;
        texts = new TextPool(little, data, charset(codepage), budget);
        for (Map<String, String> row : rows("_Columns", OF_COLUMNS)) {
            columns.computeIfAbsent(row.getOrDefault("Table", ""), table -> new ArrayList<>())
                    .add(new Column(row.getOrDefault("Name", ""), Integer.parseInt(row.getOrDefault("Type", "0")) & 0xffff));
        }
    }

    /** Whether it has texts and so may have tables. */
    boolean hasTexts() {
        return texts != null;
    }

    boolean hasTable(String table) {
        return names.containsKey("!" + table);
    }

    /** The rows of a table, each by the names of its columns, without what is empty; none where there is no such table. */
    List<Map<String, String>> rows(String table) throws IOException {
        return rows(table, columns.getOrDefault(table, List.of()));
    }

    private List<Map<String, String>> rows(String table, List<Column> of) throws IOException {
        byte[] bytes = bytes("!" + table);
        int width = of.stream().mapToInt(one -> one.width(reference)).sum();
        if (bytes == null || texts == null || width == 0) {
            return List.of();
        }
        int count = bytes.length / width;
        if (count > MOST_ROWS) {
            throw new ReadingBudget.ExceededException("its table " + table + " has " + count + " rows");
        }
        List<Map<String, String>> rows = new ArrayList<>();
        for (int row = 0; row < count; row++) {
            budget.hold(64 + 64L * of.size());
            Map<String, String> one = new LinkedHashMap<>();
            int at = 0;
            for (Column column : of) {
                int wide = column.width(reference);
                long raw = number(bytes, at + row * wide, wide);
                at += count * wide;
                if (raw != 0) {
                    one.put(column.name(), column.isText() ? texts.text((int) raw) : String.valueOf(wide == 2 ? raw - 0x8000 : raw - 0x80000000L));
                }
            }
            rows.add(one);
        }
        return rows;
    }

    private static long number(byte[] table, int at, int width) {
        long number = 0;
        for (int i = width - 1; i >= 0; i--) {
            number = number << 8 | table[at + i] & 0xff;
        }
        return number;
    }

    /** A stream by its unpacked name; a table's begins with an exclamation mark. Null where there is none. */
    byte @Nullable [] bytes(String name) throws IOException {
        String stored = names.get(name);
        if (stored == null || !(root.getEntry(stored) instanceof DocumentEntry document)) {
            return null;
        }
        if (document.getSize() > (name.startsWith("!") ? MOST : MOST_NOT_TABLES)) {
            throw new ReadingBudget.ExceededException("its part " + name + " has " + document.getSize() + " bytes, more than any has");
        }
        budget.hold(2L * document.getSize());
        try (InputStream in = new DocumentInputStream(document)) {
            return in.readAllBytes();
        }
    }

    /** Two letters lie in each character from U+3800 on, one in those from U+4800 on; U+4840 begins a table's name. */
    private static String unpacked(String name) {
        StringBuilder text = new StringBuilder();
        for (char c : name.toCharArray()) {
            if (c >= 0x3800 && c < 0x4800) {
                int pair = c - 0x3800;
                text.append(LETTERS.charAt(pair & 0x3f)).append(LETTERS.charAt(pair >> 6));
            } else if (c >= 0x4800 && c < 0x4840) {
                text.append(LETTERS.charAt(c - 0x4800));
            } else {
                text.append(c == 0x4840 ? '!' : c);
            }
        }
        return text.toString();
    }

    /** All texts of the database, of which only those that are asked for are made. */
    private static final class TextPool {

        private final byte[] data;
        private final Charset charset;
        private final ReadingBudget budget;
        private final int[] starts;
        private int size = 1;

        /** Each text's length and uses; one that is longer than a number of 16 bits tells has its length in the next place. */
        TextPool(ByteBuffer pool, byte[] data, Charset charset, ReadingBudget budget) throws IOException {
            this.data = data;
            this.charset = charset;
            this.budget = budget;
            budget.hold(4L * (pool.remaining() / 4 + 2));
            this.starts = new int[pool.remaining() / 4 + 2];
            int at = 0;
            while (pool.remaining() >= 4) {
                int length = pool.getShort() & 0xffff;
                int uses = pool.getShort() & 0xffff;
                if (length == 0 && uses != 0 && pool.remaining() >= 4) {
                    length = pool.getInt();
                }
                if (length < 0 || length > data.length - at) {
                    throw new IOException("a text is longer than all texts together");
                }
                starts[size++] = at;
                at += length;
            }
            starts[size] = at;
        }

        String text(int number) throws IOException {
            if (number >= size) {
                throw new IOException("a table refers to text " + number + " of " + size);
            }
            int length = number == 0 ? 0 : starts[number + 1] - starts[number];
            budget.hold(100 + 2L * length);
            return new String(data, starts[number], length, charset);
        }
    }

    /** Windows' code pages; Java knows that of the Korean Johab under another name. */
    private static Charset charset(int codepage) {
        String name = switch (codepage) {
            case 65001 -> "UTF-8";
            case 932 -> "windows-31j";
            case 936 -> "GBK";
            case 949 -> "x-windows-949";
            case 950 -> "x-windows-950";
            case 1361 -> "x-Johab";
            default -> "windows-" + codepage;
        };
        return codepage != 0 && Charset.isSupported(name) ? Charset.forName(name) : StandardCharsets.ISO_8859_1;
    }
}
