package rivo.formats.installer;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
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
    private static final int TYPE_AT = 7;
    private static final int HEADER_HEAD = 16;
    private static final int MOST_ENTRIES = 10_000;
    private static final int MOST_DATA = 16 << 20;
    private static final int NAME = 1000;
    private static final int VERSION = 1001;
    private static final int RELEASE = 1002;
    private static final int EPOCH = 1003;
    private static final int SUMMARY = 1004;
    private static final int VENDOR = 1011;
    private static final int ARCH = 1022;
    private static final int REQUIRE_FLAGS = 1048;
    private static final int REQUIRE_NAME = 1049;
    private static final int REQUIRE_VERSION = 1050;
    private static final int SOURCE_PACKAGE = 1106;
    private static final int PAYLOAD_DIGEST = 5092;
    private static final int PAYLOAD_ALGORITHM = 5093;
    /** Of the signature header: OpenPGP signatures of the header, and its digest. */
    private static final int DSA_OF_HEADER = 267;
    private static final int RSA_OF_HEADER = 268;
    private static final int SHA256_OF_HEADER = 273;
    private static final String SHA256 = "8";
    private static final int INT32 = 4;
    private static final int BYTES = 7;
    private static final int SOURCE = 1;
    private static final Set<Integer> TEXTS = Set.of(6, 8, 9);
    /** All others are passed over, whatever they say of themselves. */
    private static final Set<Integer> READ = Set.of(NAME, VERSION, RELEASE, EPOCH, SUMMARY, VENDOR, ARCH, REQUIRE_FLAGS, REQUIRE_NAME, REQUIRE_VERSION, SOURCE_PACKAGE,
            PAYLOAD_DIGEST, PAYLOAD_ALGORITHM, DSA_OF_HEADER, RSA_OF_HEADER, SHA256_OF_HEADER);
    private static final int LONGEST_TEXT = 1 << 16;
    private static final int GREATER = 4;

    private RpmReader() {
    }

    static InstallerFile read(Path file, List<byte[]> keys, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file)))) {
            byte[] lead = new byte[LEAD];
            in.readFully(lead);
            Header signatures = header(in, budget);
            in.readFully(new byte[(8 - signatures.length() % 8) % 8]);
            Header header = header(in, budget);
            if (lead[TYPE_AT] == SOURCE || header.tags().containsKey(SOURCE_PACKAGE)) {
                throw new UnreadableInstallerException("source-package", "This is a source package: it is what RPM packages are built from, and installs nothing. Drop the "
                        + "package that was built from it.");
            }
            checkDigests(signatures, header, in);
            return told(header.tags()).signature(signature(signatures, header, keys, budget)).build();
        }
    }

    /** What it was packed with is compared with what is there: a download that went wrong shows so. */
    private static void checkDigests(Header signatures, Header header, DataInputStream payload) throws IOException {
        String ofHeader = first(signatures.tags(), SHA256_OF_HEADER);
        if (ofHeader != null && !ofHeader.equals(HexFormat.of().formatHex(Digests.of("SHA-256").digest(header.raw())))) {
            throw new IOException("its header is not as it was packed");
        }
        String ofPayload = first(header.tags(), PAYLOAD_DIGEST);
        if (ofPayload != null && SHA256.equals(first(header.tags(), PAYLOAD_ALGORITHM))) {
            MessageDigest digest = Digests.of("SHA-256");
            Digests.add(payload, digest);
            if (!ofPayload.equals(HexFormat.of().formatHex(digest.digest()))) {
                throw new IOException("its content is not as it was packed");
            }
        }
    }

    private static FileSignature signature(Header signatures, Header header, List<byte[]> keys, ReadingBudget budget) throws IOException {
        byte[] found = signatures.bytes().getOrDefault(RSA_OF_HEADER, signatures.bytes().get(DSA_OF_HEADER));
        return found == null ? FileSignature.NONE : OpenPgp.detached(found, keys, new ByteArrayInputStream(header.raw()), budget);
    }

    /**
     * @param raw as it lies in the file
     * @param length of its data
     */
    private record Header(byte[] raw, int length, Map<Integer, List<String>> tags, Map<Integer, byte[]> bytes) {
    }

    private static Header header(DataInputStream in, ReadingBudget budget) throws IOException {
        byte[] head = new byte[HEADER_HEAD];
        in.readFully(head);
        ByteBuffer numbers = ByteBuffer.wrap(head);
        int entries = numbers.getInt(8);
        int length = numbers.getInt(12);
        if (numbers.getInt(0) != 0x8eade801) {
            throw new IOException("a header is missing");
        }
        if (entries < 0 || entries > MOST_ENTRIES || length < 0 || length > MOST_DATA) {
            throw new IOException("a header says it has " + entries + " entries in " + length + " bytes");
        }
        budget.hold(2 * (HEADER_HEAD + entries * 16L + length));
        byte[] raw = Arrays.copyOf(head, HEADER_HEAD + entries * 16 + length);
        if (in.readNBytes(raw, HEADER_HEAD, raw.length - HEADER_HEAD) < raw.length - HEADER_HEAD) {
            throw new IOException("it ends within a header");
        }
        Map<Integer, List<String>> tags = new HashMap<>();
        Map<Integer, byte[]> bytes = new HashMap<>();
        ByteBuffer all = ByteBuffer.wrap(raw, HEADER_HEAD, entries * 16);
        ByteBuffer data = ByteBuffer.wrap(raw, HEADER_HEAD + entries * 16, length).slice();
        for (int i = 0; i < entries; i++) {
            int tag = all.getInt();
            int type = all.getInt();
            int at = all.getInt();
            int count = all.getInt();
            if (!READ.contains(tag) || tags.containsKey(tag) || at < 0 || at >= length) {
                continue;
            }
            tags.put(tag, values(type, at, count, data.duplicate(), budget));
            if (type == BYTES && count > 0 && count <= LONGEST_TEXT && count <= length - at) {
                byte[] blob = new byte[count];
                data.get(at, blob);
                bytes.put(tag, blob);
            }
        }
        return new Header(raw, length, tags, bytes);
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
                values.add(new String(data.array(), data.arrayOffset() + from, Math.max(0, data.position() - from - 1), StandardCharsets.UTF_8));
            } else if (type == INT32 && data.remaining() >= 4) {
                budget.hold(64);
                values.add(String.valueOf(data.getInt()));
            } else {
                break;
            }
        }
        return values;
    }

    private static InstallerFile.Builder told(Map<Integer, List<String>> tags) throws IOException {
        String code = first(tags, NAME);
        if (code == null) {
            throw new IOException("it does not tell its name");
        }
        String version = first(tags, VERSION);
        String release = first(tags, RELEASE);
        String epoch = first(tags, EPOCH);
        String whole = version == null ? null : (epoch == null ? "" : epoch + ":") + version + (release == null ? "" : "-" + release);
        String arch = first(tags, ARCH);
        return InstallerFile.of(InstallerFormat.RPM).name(DebReader.title(code)).version(version).packaged(whole).maker(first(tags, VENDOR))
                .description(first(tags, SUMMARY)).architecture(arch == null ? null : DebReader.architecture(arch)).code(code).family(code).needs(needs(tags))
                .fact("Version of the package", whole);
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
