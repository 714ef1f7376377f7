package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.apache.poi.hpsf.NoPropertySetStreamException;
import org.apache.poi.hpsf.PropertySet;
import org.apache.poi.hpsf.SummaryInformation;
import org.apache.poi.hpsf.UnexpectedPropertySetTypeException;
import org.apache.poi.poifs.filesystem.DirectoryNode;
import org.apache.poi.poifs.filesystem.DocumentEntry;
import org.apache.poi.poifs.filesystem.DocumentInputStream;
import org.apache.poi.poifs.filesystem.Entry;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.jspecify.annotations.Nullable;

/**
 * Windows Installer databases: OLE2 compound files ([MS-CFB]) whose streams are tables.
 *
 * <p><b>How.</b> Stream names are packed, two letters into one. All texts lie in a pool, which tables refer to by number;
 * a table lies column by column. Only the table {@code Property} and the summary are read.
 */
final class MsiReader {

    private static final int MOST = 8 << 20;
    private static final int MOST_NOT_TABLES = 1 << 20;
    private static final String LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz._";

    private final DirectoryNode root;
    private final ReadingBudget budget;
    private final Map<String, String> names = new HashMap<>();

    private MsiReader(DirectoryNode root, ReadingBudget budget) throws IOException {
        this.root = root;
        this.budget = budget;
        for (Entry entry : root) {
            budget.hold(200);
            names.put(unpacked(entry.getName()), entry.getName());
        }
    }

    static InstallerFile read(Path file, ReadingBudget budget) throws IOException {
        CompoundFileBounds.check(file, budget);
        try (POIFSFileSystem database = new POIFSFileSystem(file.toFile(), true)) {
            return new MsiReader(database.getRoot(), budget).read();
        }
    }

    private InstallerFile read() throws IOException {
        if (!names.containsKey("!_StringPool")) {
            return InstallerFile.nothingOf(InstallerFormat.OTHER);
        }
        byte[] signature = bytes("\u0005DigitalSignature");
        String signer = signature == null ? null : Signers.of(signature, budget);
        SummaryInformation summary = summary();
        byte[] property = bytes("!Property");
        if (property == null) {
            return InstallerFile.nothingOf(InstallerFormat.MSI_PATCH).signedBy(signer);
        }
        Map<String, String> told = properties(property);
        String code = told.get("ProductCode");
        return new InstallerFile(InstallerFormat.MSI, told.get("ProductName"), told.get("ProductVersion"),
                told.get("Manufacturer"), summary == null ? null : summary.getSubject(), architecture(summary),
                code == null ? null : code.toUpperCase(Locale.ROOT), told.get("UpgradeCode"), null,
                InstallerKind.UNKNOWN, !told.containsKey("MSIINSTALLPERUSER"), signer, List.of(), List.of());
    }

    private @Nullable SummaryInformation summary() throws IOException {
        byte[] bytes = bytes(SummaryInformation.DEFAULT_STREAM_NAME);
        try {
            return bytes == null ? null : new SummaryInformation(new PropertySet(new ByteArrayInputStream(bytes)));
        } catch (NoPropertySetStreamException | UnexpectedPropertySetTypeException e) {
            return null;
        }
    }

    /** The template is the platform and the languages, such as {@code x64;1033}. */
    private static @Nullable String architecture(@Nullable SummaryInformation summary) {
        String template = summary == null ? null : summary.getTemplate();
        String platform = template == null ? "" : template.split("[;,]", 2)[0].strip().toLowerCase(Locale.ROOT);
        return switch (platform) {
            case "x64", "amd64" -> "x64";
            case "arm64" -> "arm64";
            case "intel" -> "x86";
            default -> null;
        };
    }

    private byte @Nullable [] bytes(String name) throws IOException {
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

    /** The table's two columns, name and value, one after the other. */
    private Map<String, String> properties(byte[] table) throws IOException {
        ByteBuffer pool = little(Objects.requireNonNull(bytes("!_StringPool")));
        byte[] data = bytes("!_StringData");
        if (pool.remaining() < 4 || data == null) {
            throw new IOException("its texts are missing");
        }
        int codepage = pool.getShort() & 0xffff;
        int reference = (pool.getShort() & 0x8000) != 0 ? 3 : 2;
        TextPool texts = new TextPool(pool, data, charset(codepage), budget);
        Map<String, String> properties = new HashMap<>();
        int rows = table.length / (2 * reference);
        for (int row = 0; row < rows; row++) {
            properties.put(texts.text(number(table, row * reference, reference)),
                    texts.text(number(table, (rows + row) * reference, reference)));
        }
        return properties;
    }

    private static int number(byte[] table, int at, int width) {
        return (table[at] & 0xff) | (table[at + 1] & 0xff) << 8 | (width == 3 ? (table[at + 2] & 0xff) << 16 : 0);
    }

    /** All texts of the database, of which only those that are asked for are made. */
    private static final class TextPool {

        private final byte[] data;
        private final Charset charset;
        private final ReadingBudget budget;
        private int[] starts;
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

    private static Charset charset(int codepage) {
        String name = codepage == 65001 ? "UTF-8" : "windows-" + codepage;
        return codepage != 0 && Charset.isSupported(name) ? Charset.forName(name) : StandardCharsets.ISO_8859_1;
    }

    private static ByteBuffer little(byte[] bytes) {
        return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }
}
