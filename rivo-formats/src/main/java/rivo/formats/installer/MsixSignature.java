package rivo.formats.installer;

import java.io.IOException;
import java.io.InputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.Enumeration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;

/**
 * The signature of an MSIX package: over the digests of its block map and of its content types ("App package block map", Microsoft). The block map has
 * the digest of each 64 KiB of each file, so that all of them are looked at.
 */
final class MsixSignature {

    private static final String SIGNATURE = "AppxSignature.p7x";
    private static final String BLOCK_MAP = "AppxBlockMap.xml";
    private static final String TYPES = "[Content_Types].xml";
    /** Those that the block map does not list. */
    private static final Set<String> UNLISTED = Set.of(SIGNATURE, BLOCK_MAP, TYPES, "AppxMetadata/CodeIntegrity.cat");
    private static final byte[] MARK = {'P', 'K', 'C', 'X'};
    private static final int MOST_SIGNATURE = 1 << 20;
    private static final int MOST_LIST = 32 << 20;
    private static final int BLOCK = 1 << 16;

    private MsixSignature() {
    }

    static FileSignature of(ZipFile zip, ReadingBudget budget) throws IOException {
        FileSignature own = ownOf(zip, budget);
        return own.state() == FileSignature.State.HOLDS && zip.getEntry(MsixReader.BUNDLE_MANIFEST) != null ? ofPackages(zip, own, budget) : own;
    }

    private static FileSignature ownOf(ZipFile zip, ReadingBudget budget) throws IOException {
        ZipEntry entry = zip.getEntry(SIGNATURE);
        if (entry == null) {
            return FileSignature.NONE;
        }
        byte[] marked = ZipReader.bounded(zip, entry, MOST_SIGNATURE, budget);
        if (marked.length < MARK.length || !Arrays.equals(marked, 0, MARK.length, MARK, 0, MARK.length)) {
            return FileSignature.notChecked(null, "its signature is of a kind that is not known");
        }
        CmsSignature signed = CmsSignature.read(Arrays.copyOfRange(marked, MARK.length, marked.length), budget);
        if (signed.signature().state() != FileSignature.State.HOLDS) {
            return signed.signature();
        }
        boolean isSame = isSigned(zip, signed, "AXBM", BLOCK_MAP, budget) && isSigned(zip, signed, "AXCT", TYPES, budget);
        String changed = isSame ? changedFile(zip, budget) : "its list of files";
        return changed == null ? signed.signature() : signed.signature().changed(changed + " was changed after it was signed");
    }

    /** A bundle's own signature is not over the packages in it: each of them has one. */
    private static FileSignature ofPackages(ZipFile zip, FileSignature own, ReadingBudget budget) throws IOException {
        Enumeration<? extends ZipEntry> entries = zip.entries();
        while (entries.hasMoreElements()) {
            ZipEntry one = entries.nextElement();
            if (isPackage(one.getName())) {
                try (Unpacked unpacked = Unpacked.of(zip, one, budget)) {
                    if (unpacked == null) {
                        return FileSignature.notChecked(own.signer(), one.getName() + " in it is too large to be looked into");
                    }
                    ZipReader.checkDirectory(unpacked.file(), budget);
                    try (ZipFile inner = new ZipFile(unpacked.file().toFile())) {
                        FileSignature its = ownOf(inner, budget);
                        boolean isOfTheSame = its.state() == FileSignature.State.HOLDS && Arrays.equals(its.chain().get(0), own.chain().get(0));
                        if (!isOfTheSame) {
                            return own.changed(one.getName() + " in it is not signed by the same");
                        }
                    }
                } catch (UnreadableInstallerException e) {
                    return own.changed(one.getName() + " in it is damaged");
                }
            }
        }
        return own;
    }

    private static boolean isPackage(String name) {
        return InstallerFormat.claimedBy(name).filter(format -> format == InstallerFormat.MSIX).isPresent();
    }

    private static boolean isSigned(ZipFile zip, CmsSignature signed, String word, String name, ReadingBudget budget) throws IOException {
        ZipEntry entry = zip.getEntry(name);
        MessageDigest digest = signed.digester();
        int length = digest.getDigestLength();
        for (int at = 4; entry != null && at + 4 + length <= signed.digest().length; at += 4 + length) {
            if (word.equals(new String(signed.digest(), at, 4, StandardCharsets.US_ASCII))) {
                try (InputStream in = metered(zip, entry, budget)) {
                    Digests.add(in, digest);
                }
                return Arrays.equals(digest.digest(), 0, length, signed.digest(), at + 4, at + 4 + length);
            }
        }
        return false;
    }

    /** No more than it says, which is what its archive was judged by. */
    private static InputStream metered(ZipFile zip, ZipEntry entry, ReadingBudget budget) throws IOException {
        if (entry.getSize() > MOST_LIST) {
            throw new ReadingBudget.ExceededException(entry.getName() + " has " + entry.getSize() + " bytes");
        }
        return budget.metered(zip.getInputStream(entry), entry.getSize(), entry.getName());
    }

    /** The name of the first file that is not as the block map has it, that it does not list, or that is there twice; null where all are well. */
    private static @Nullable String changedFile(ZipFile zip, ReadingBudget budget) throws IOException {
        Map<String, ZipEntry> entries = new HashMap<>();
        for (ZipEntry one : Collections.list(zip.entries())) {
            if (entries.put(decoded(one.getName()), one) != null) {
                return one.getName();
            }
        }
        Set<String> listed = new HashSet<>();
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (InputStream in = metered(zip, zip.getEntry(BLOCK_MAP), budget)) {
            XMLStreamReader reader = factory.createXMLStreamReader(in);
            MessageDigest digest = null;
            while (reader.hasNext()) {
                if (reader.next() != XMLStreamConstants.START_ELEMENT) {
                    continue;
                }
                if ("BlockMap".equals(reader.getLocalName())) {
                    digest = digest(reader.getAttributeValue(null, "HashMethod"));
                } else if ("File".equals(reader.getLocalName())) {
                    String name = told(reader, "Name").replace('\\', '/');
                    ZipEntry entry = entries.get(name);
                    if (entry == null || digest == null || !isAsMapped(zip, entry, reader, digest)) {
                        return name;
                    }
                    listed.add(entry.getName());
                }
            }
        } catch (XMLStreamException | IllegalArgumentException e) {
            return "its block map";
        }
        return unlisted(zip, listed);
    }

    private static String told(XMLStreamReader reader, String attribute) throws XMLStreamException {
        String value = reader.getAttributeValue(null, attribute);
        if (value == null) {
            throw new XMLStreamException("an element has no " + attribute);
        }
        return value;
    }

    /** Whether the file comes to its blocks, up to the end of the element at which the reader is, and to nothing more. */
    private static boolean isAsMapped(ZipFile zip, ZipEntry entry, XMLStreamReader reader, MessageDigest digest) throws IOException, XMLStreamException {
        try (InputStream file = zip.getInputStream(entry)) {
            for (int event = reader.next(); event != XMLStreamConstants.END_ELEMENT || !"File".equals(reader.getLocalName()); event = reader.next()) {
                if (event == XMLStreamConstants.START_ELEMENT && "Block".equals(reader.getLocalName())) {
                    byte[] block = file.readNBytes(BLOCK);
                    boolean isSame = block.length > 0 && MessageDigest.isEqual(digest.digest(block), Base64.getDecoder().decode(told(reader, "Hash")));
                    if (!isSame) {
                        return false;
                    }
                }
            }
            return file.read() < 0;
        }
    }

    private static @Nullable String unlisted(ZipFile zip, Set<String> listed) {
        Enumeration<? extends ZipEntry> entries = zip.entries();
        while (entries.hasMoreElements()) {
            ZipEntry one = entries.nextElement();
            boolean isOfBundle = zip.getEntry(MsixReader.BUNDLE_MANIFEST) != null && isPackage(one.getName());
            if (!one.isDirectory() && !isOfBundle && !UNLISTED.contains(one.getName()) && !listed.contains(one.getName())) {
                return one.getName();
            }
        }
        return null;
    }

    /** In the archive, names are percent-encoded; in the block map they are not. */
    private static String decoded(String name) {
        try {
            return URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            return name;
        }
    }

    private static @Nullable MessageDigest digest(@Nullable String method) throws IOException {
        String algorithm = method == null ? "" : method.substring(method.lastIndexOf('#') + 1);
        return switch (algorithm) {
            case "sha256" -> Digests.of("SHA-256");
            case "sha384" -> Digests.of("SHA-384");
            case "sha512" -> Digests.of("SHA-512");
            default -> null;
        };
    }
}
