package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;

/** ZIP archives, and among them MSIX packages: those with a manifest. Nothing of one is unpacked but the manifest. */
final class ZipReader {

    private static final int MOST_DIRECTORY = 64 << 20;
    private static final int MOST_ENTRIES = 200_000;
    private static final int MOST_MANIFEST = 1 << 20;
    /** What an archive may come to when it is unpacked, in bytes, before it is asked how many times its own size that is. */
    private static final long HARMLESS = 1L << 30;
    private static final int MOST_TIMES = 200;
    private static final int END_LENGTH = 22;

    private ZipReader() {
    }

    static InstallerFile read(Path file) throws IOException, UnreadableInstallerException {
        checkDirectory(file);
        try (ZipFile zip = ZipFile.builder().setPath(file).get()) {
            List<ZipArchiveEntry> entries = Collections.list(zip.getEntries());
            check(entries, java.nio.file.Files.size(file));
            ZipArchiveEntry bundle = zip.getEntry("AppxMetadata/AppxBundleManifest.xml");
            ZipArchiveEntry manifest = bundle != null ? bundle : zip.getEntry("AppxManifest.xml");
            if (manifest == null) {
                return InstallerFile.nothingOf(InstallerFormat.ZIP);
            }
            ZipArchiveEntry signature = zip.getEntry("AppxSignature.p7x");
            return manifest(xml(bounded(zip, manifest)), signature == null ? null : signer(bounded(zip, signature)));
        }
    }

    /** Before any of it is held: the central directory's length, by the record at the file's end. */
    private static void checkDirectory(Path file) throws IOException, UnreadableInstallerException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            int length = (int) Math.min(in.length(), END_LENGTH + 0xffff);
            byte[] end = new byte[length];
            in.seek(in.length() - length);
            in.readFully(end);
            ByteBuffer bytes = ByteBuffer.wrap(end).order(ByteOrder.LITTLE_ENDIAN);
            for (int at = length - END_LENGTH; at >= 0; at--) {
                if (bytes.getInt(at) == 0x06054b50) {
                    long directory = bytes.getInt(at + 12) & 0xffffffffL;
                    if (directory > MOST_DIRECTORY && directory != 0xffffffffL) {
                        throw hostile("its list of entries alone has " + directory + " bytes");
                    }
                    return;
                }
            }
            throw new IOException("its end is missing");
        }
    }

    private static void check(List<ZipArchiveEntry> entries, long size) throws UnreadableInstallerException {
        if (entries.size() > MOST_ENTRIES) {
            throw hostile("it has " + entries.size() + " entries, more than " + MOST_ENTRIES);
        }
        long unpacked = 0;
        for (ZipArchiveEntry entry : entries) {
            String name = entry.getName().replace('\\', '/');
            if (name.startsWith("/") || name.matches("(?s)[A-Za-z]:.*") || List.of(name.split("/")).contains("..")) {
                throw hostile("its entry " + shown(entry.getName()) + " would be put outside the folder it is unpacked in");
            }
            unpacked += Math.max(0, entry.getSize());
        }
        if (unpacked < 0 || unpacked > HARMLESS && unpacked / MOST_TIMES > size) {
            throw hostile("unpacked it would come to " + unpacked / (1 << 20) + " MiB, more than " + MOST_TIMES
                    + " times its size");
        }
    }

    private static String shown(String name) {
        return name.length() > 100 ? name.substring(0, 100) + "…" : name;
    }

    private static UnreadableInstallerException hostile(String what) {
        return new UnreadableInstallerException("hostile-file", "This archive is not taken: " + what
                + ". Ask where it came from, or pack it anew.");
    }

    private static byte[] bounded(ZipFile zip, ZipArchiveEntry entry) throws IOException {
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] bytes = in.readNBytes(MOST_MANIFEST + 1);
            if (bytes.length > MOST_MANIFEST) {
                throw new IOException(entry.getName() + " is longer than 1 MiB");
            }
            return bytes;
        }
    }

    private static @Nullable String signer(byte[] signature) {
        boolean marked = signature.length > 4 && signature[0] == 'P' && signature[1] == 'K' && signature[2] == 'C'
                && signature[3] == 'X';
        return marked ? Signers.of(java.util.Arrays.copyOfRange(signature, 4, signature.length)) : null;
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
