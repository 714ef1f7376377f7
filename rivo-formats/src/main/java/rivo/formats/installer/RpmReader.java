package rivo.formats.installer;

import java.io.DataInputStream;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * RPM packages, version 3 of the file format: a lead of 96 bytes, the signature header, padded to eight bytes, then the
 * header with the tags that are read here.
 */
final class RpmReader {

    private static final int LEAD = 96;
    private static final int MOST_ENTRIES = 10_000;
    private static final int MOST_DATA = 16 << 20;
    private static final int NAME = 1000;
    private static final int VERSION = 1001;
    private static final int SUMMARY = 1004;
    private static final int VENDOR = 1011;
    private static final int ARCH = 1022;
    private static final int REQUIRE_FLAGS = 1048;
    private static final int REQUIRE_NAME = 1049;
    private static final int REQUIRE_VERSION = 1050;
    private static final int INT32 = 4;
    private static final Set<Integer> TEXTS = Set.of(6, 8, 9);
    /** All others are passed over, whatever they say of themselves. */
    private static final Set<Integer> READ = Set.of(NAME, VERSION, SUMMARY, VENDOR, ARCH, REQUIRE_FLAGS, REQUIRE_NAME, REQUIRE_VERSION);
    private static final int LONGEST_TEXT = 1 << 16;
    private static final int GREATER = 4;

    private RpmReader() {
    }

    static InstallerFile read(Path file, ReadingBudget budget) throws IOException {
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file)))) {
            in.readFully(new byte[LEAD]);
            int length = header(in, budget).length();
            in.readFully(new byte[(8 - length % 8) % 8]);
            return told(header(in, budget).tags());
        }
    }

    /** @param length of its data */
    private record Header(int length, Map<Integer, List<String>> tags) {
    }

    private static Header header(DataInputStream in, ReadingBudget budget) throws IOException {
        if (in.readInt() != 0x8eade801) {
            throw new IOException("a header is missing");
        }
        in.readInt();
        int entries = in.readInt();
        int length = in.readInt();
        if (entries < 0 || entries > MOST_ENTRIES || length < 0 || length > MOST_DATA) {
            throw new IOException("a header says it has " + entries + " entries in " + length + " bytes");
        }
        budget.hold(entries * 16L + length);
        byte[] index = in.readNBytes(entries * 16);
        byte[] data = in.readNBytes(length);
        if (index.length < entries * 16 || data.length < length) {
            throw new IOException("it ends within a header");
        }
        Map<Integer, List<String>> tags = new HashMap<>();
        ByteBuffer all = ByteBuffer.wrap(index);
        for (int i = 0; i < entries; i++) {
            int tag = all.getInt();
            int type = all.getInt();
            int at = all.getInt();
            int count = all.getInt();
            if (READ.contains(tag) && !tags.containsKey(tag)) {
                tags.put(tag, values(type, at, count, ByteBuffer.wrap(data), budget));
            }
        }
        return new Header(length, tags);
    }

    private static List<String> values(int type, int at, int count, ByteBuffer data, ReadingBudget budget) throws IOException {
        List<String> values = new ArrayList<>();
        if (at < 0 || at >= data.limit()) {
            return values;
        }
        data.position(at);
        for (int i = 0; i < Math.min(count, MOST_ENTRIES) && data.hasRemaining(); i++) {
            if (TEXTS.contains(type)) {
                int from = data.position();
                while (data.hasRemaining() && data.get() != 0) {
                    // On to its end.
                }
                int length = data.position() - from;
                budget.hold(64 + 2L * length);
                if (length > LONGEST_TEXT) {
                    throw new ReadingBudget.ExceededException("one of its texts has " + length + " bytes");
                }
                values.add(new String(data.array(), from, Math.max(0, data.position() - from - 1), StandardCharsets.UTF_8));
            } else if (type == INT32 && data.remaining() >= 4) {
                budget.hold(64);
                values.add(String.valueOf(data.getInt()));
            } else {
                break;
            }
        }
        return values;
    }

    private static InstallerFile told(Map<Integer, List<String>> tags) throws IOException {
        String code = first(tags, NAME);
        if (code == null) {
            throw new IOException("it does not tell its name");
        }
        String arch = first(tags, ARCH);
        return new InstallerFile(InstallerFormat.RPM, DebReader.title(code), first(tags, VERSION), first(tags, VENDOR),
                first(tags, SUMMARY), arch == null ? null : DebReader.architecture(arch), code, code, null,
                InstallerKind.UNKNOWN, true, null, needs(tags), List.of());
    }

    private static @Nullable String first(Map<Integer, List<String>> tags, int tag) {
        List<String> values = tags.getOrDefault(tag, List.of());
        return values.isEmpty() || values.get(0).isEmpty() ? null : values.get(0);
    }

    private static List<InstallerFile.Needed> needs(Map<Integer, List<String>> tags) {
        List<String> names = tags.getOrDefault(REQUIRE_NAME, List.of());
        List<String> versions = tags.getOrDefault(REQUIRE_VERSION, List.of());
        List<String> flags = tags.getOrDefault(REQUIRE_FLAGS, List.of());
        List<InstallerFile.Needed> needs = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            // What the packaging itself asks for is no software.
            if (!names.get(i).startsWith("rpmlib(") && !names.get(i).startsWith("/")) {
                boolean atLeast = i < flags.size() && (Integer.parseInt(flags.get(i)) & GREATER) != 0;
                needs.add(new InstallerFile.Needed(names.get(i),
                        atLeast && i < versions.size() && !versions.get(i).isEmpty() ? versions.get(i) : null));
            }
        }
        return needs;
    }
}
