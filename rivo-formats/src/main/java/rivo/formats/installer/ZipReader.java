package rivo.formats.installer;

import java.io.ByteArrayInputStream;
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
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;

/** ZIP archives, and among them MSIX packages: those with a manifest. Nothing of one is unpacked but the manifest. */
final class ZipReader {

    /** An entry has 46 bytes and its name. */
    private static final int MOST_DIRECTORY = 12 << 20;
    private static final int MOST_ENTRIES = 100_000;
    private static final int MOST_MANIFEST = 256 << 10;
    private static final int MOST_SIGNATURE = 1 << 20;
    /** What an entry and its name come to while they are looked at. */
    private static final int ENTRY_COSTS = 320;
    /** What an archive may come to when it is unpacked, in bytes, before it is asked how many times its own size that is. */
    private static final long HARMLESS = 1L << 30;
    private static final int MOST_TIMES = 200;
    private static final int END_LENGTH = 22;
    private static final int LOCATOR_LENGTH = 20;
    private static final int ZIP64_LENGTH = 56;

    private ZipReader() {
    }

    static InstallerFile read(Path file, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        checkDirectory(file, budget);
        try (ZipFile zip = new ZipFile(file.toFile())) {
            check(zip, Files.size(file), budget);
            ZipEntry bundle = zip.getEntry("AppxMetadata/AppxBundleManifest.xml");
            ZipEntry manifest = bundle != null ? bundle : zip.getEntry("AppxManifest.xml");
            if (manifest == null) {
                return InstallerFile.nothingOf(InstallerFormat.ZIP);
            }
            ZipEntry signature = zip.getEntry("AppxSignature.p7x");
            byte[] xml = bounded(zip, manifest, MOST_MANIFEST, budget);
            // A document comes to many times its text.
            budget.hold(60L * xml.length);
            return manifest(xml(xml), signature == null ? null : signer(bounded(zip, signature, MOST_SIGNATURE, budget), budget));
        }
    }

    /** Before any of it is held: the central directory's length, by the record at the file's end (APPNOTE, 4.3.16 and 4.3.14). */
    private static void checkDirectory(Path file, ReadingBudget budget) throws IOException, UnreadableInstallerException {
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
        if (name.startsWith("/") || name.startsWith("\\") || name.length() > 1 && name.charAt(1) == ':') {
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

    private static byte[] bounded(ZipFile zip, ZipEntry entry, int most, ReadingBudget budget) throws IOException {
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] bytes = in.readNBytes(most + 1);
            budget.hold(2L * bytes.length);
            if (bytes.length > most) {
                throw new ReadingBudget.ExceededException(entry.getName() + " is longer than " + (most >> 10) + " KiB");
            }
            return bytes;
        }
    }

    private static @Nullable String signer(byte[] signature, ReadingBudget budget) throws IOException {
        boolean marked = signature.length > 4 && signature[0] == 'P' && signature[1] == 'K' && signature[2] == 'C'
                && signature[3] == 'X';
        return marked ? Signers.of(java.util.Arrays.copyOfRange(signature, 4, signature.length), budget) : null;
    }

    private static Document xml(byte[] bytes) throws IOException {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setExpandEntityReferences(false);
            var builder = factory.newDocumentBuilder();
            builder.setErrorHandler(null);
            return builder.parse(new ByteArrayInputStream(bytes));
        } catch (ParserConfigurationException | SAXException e) {
            throw new IOException("its manifest is no XML: " + e.getMessage(), e);
        }
    }

    private static InstallerFile manifest(Document manifest, @Nullable String signer) throws IOException {
        Element identity = first(manifest, "Identity");
        if (identity == null) {
            throw new IOException("its manifest has no identity");
        }
        String code = text(identity.getAttribute("Name"));
        String maker = textOf(manifest, "PublisherDisplayName");
        String name = textOf(manifest, "DisplayName");
        Element family = first(manifest, "TargetDeviceFamily");
        return new InstallerFile(InstallerFormat.MSIX, plain(name) ? name : code,
                version(text(identity.getAttribute("Version"))),
                plain(maker) ? maker : Signers.organisation(identity.getAttribute("Publisher")),
                textOf(manifest, "Description"), architecture(identity.getAttribute("ProcessorArchitecture")), code, code,
                family == null ? null : text(family.getAttribute("MinVersion")), InstallerKind.UNKNOWN, true, signer,
                needs(manifest), List.of());
    }

    /** A name that is not a reference to a resource. */
    private static boolean plain(@Nullable String name) {
        return name != null && !name.startsWith("ms-resource:");
    }

    /** Packages number in four parts; the last is mostly an idle zero. */
    private static @Nullable String version(@Nullable String version) {
        return version == null ? null : version.replaceFirst("^(\\d+\\.\\d+\\.\\d+)\\.0$", "$1");
    }

    private static @Nullable String architecture(String architecture) {
        return switch (architecture.toLowerCase(Locale.ROOT)) {
            case "x64" -> "x64";
            case "x86" -> "x86";
            case "arm64" -> "arm64";
            default -> null;
        };
    }

    private static List<InstallerFile.Needed> needs(Document manifest) {
        List<InstallerFile.Needed> needs = new ArrayList<>();
        NodeList all = manifest.getElementsByTagNameNS("*", "PackageDependency");
        for (int i = 0; i < Math.min(100, all.getLength()); i++) {
            Element one = (Element) all.item(i);
            needs.add(new InstallerFile.Needed(one.getAttribute("Name"), version(text(one.getAttribute("MinVersion")))));
        }
        return needs;
    }

    private static @Nullable Element first(Document manifest, String name) {
        return (Element) manifest.getElementsByTagNameNS("*", name).item(0);
    }

    private static @Nullable String textOf(Document manifest, String name) {
        Element element = first(manifest, name);
        return element == null ? null : text(element.getTextContent());
    }

    private static @Nullable String text(String text) {
        return text.isBlank() ? null : text.strip();
    }
}
