package rivo.formats.installer;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.apache.poi.hpsf.ClassID;
import org.apache.poi.poifs.filesystem.DirectoryNode;
import org.apache.poi.poifs.filesystem.DocumentEntry;
import org.apache.poi.poifs.filesystem.DocumentInputStream;
import org.apache.poi.poifs.filesystem.Entry;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.poifs.property.DirectoryProperty;
import org.apache.poi.poifs.property.Property;
import org.jspecify.annotations.Nullable;

/**
 * The signature of a Windows Installer database: a stream of its own, over the digest of all other streams in the order of their names, each storage
 * closed by its class. Where the stream {@code MsiDigitalSignatureEx} is there, too, it comes first: it is the digest of the names and sizes.
 */
final class MsiSignature {

    private static final String SIGNATURE = "\u0005DigitalSignature";
    private static final String OF_NAMES = "\u0005MsiDigitalSignatureEx";

    private static final int DEEPEST = 20;
    private static final int ENTRY = 128;
    private static final int NAME_LENGTH_AT = 64;
    private static final int CLASS_AT = 80;
    private static final int CLASS_AND_STATE = 20;
    private static final int STATE_AT = 96;
    private static final int TIMES_AT = 100;
    private static final int TIMES = 16;
    private static final int SIZE_AT = 120;

    private MsiSignature() {
    }

    static FileSignature of(POIFSFileSystem file, MsiDatabase database, ReadingBudget budget) throws IOException {
        byte[] signature = database.bytes(SIGNATURE);
        if (signature == null) {
            return FileSignature.NONE;
        }
        CmsSignature signed = CmsSignature.read(signature, budget);
        MessageDigest digest = signed.digester();
        byte[] ofNames = database.bytes(OF_NAMES);
        if (ofNames != null) {
            digest.update(ofNames);
        }
        add(file.getRoot(), true, digest, 0);
        FileSignature found = signed.of(digest.digest());
        if (ofNames == null || found.state() != FileSignature.State.HOLDS) {
            return found;
        }
        MessageDigest names = signed.digester();
        addNames(file.getPropertyTable().getRoot(), true, names, 0);
        return MessageDigest.isEqual(names.digest(), ofNames) ? found : found.changed("its list of parts was changed after it was signed");
    }

    /** Of each storage and stream what the directory says of it ([MS-CFB], 2.6.1): its name, class or size, state and times; the root has no name and no times. */
    private static void addNames(DirectoryProperty storage, boolean isRoot, MessageDigest digest, int depth) throws IOException {
        bound(depth);
        byte[] own = entry(storage);
        if (!isRoot) {
            digest.update(own, 0, nameLength(own));
        }
        digest.update(own, CLASS_AT, CLASS_AND_STATE);
        if (!isRoot) {
            digest.update(own, TIMES_AT, TIMES);
        }
        List<Property> entries = new ArrayList<>();
        storage.getChildren().forEachRemaining(entries::add);
        entries.sort(Comparator.comparing(one -> inOrder(one.getName()), Arrays::compareUnsigned));
        for (Property one : entries) {
            if (one instanceof DirectoryProperty below) {
                addNames(below, false, digest, depth + 1);
            } else if (!isRoot || !one.getName().equals(SIGNATURE) && !one.getName().equals(OF_NAMES)) {
                byte[] stream = entry(one);
                digest.update(stream, 0, nameLength(stream));
                digest.update(stream, SIZE_AT, 4);
                digest.update(stream, STATE_AT, 4);
                digest.update(stream, TIMES_AT, TIMES);
            }
        }
    }

    private static byte[] entry(Property property) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(ENTRY);
        property.writeData(out);
        return out.toByteArray();
    }

    /** Without the zero behind it. */
    private static int nameLength(byte[] entry) {
        return Math.max(0, Math.min(NAME_LENGTH_AT, (entry[NAME_LENGTH_AT] & 0xff) - 2));
    }

    private static byte[] inOrder(String name) {
        return (name + "\0").getBytes(StandardCharsets.UTF_16LE);
    }

    private static void bound(int depth) throws IOException {
        if (depth > DEEPEST) {
            throw new ReadingBudget.ExceededException("its storages lie too deep in each other");
        }
    }

    private static void add(DirectoryNode storage, boolean isRoot, MessageDigest digest, int depth) throws IOException {
        bound(depth);
        List<Entry> entries = new ArrayList<>();
        storage.forEach(entries::add);
        entries.sort(Comparator.comparing(entry -> inOrder(entry.getName()), Arrays::compareUnsigned));
        for (Entry entry : entries) {
            boolean isOfSignature = isRoot && (entry.getName().equals(SIGNATURE) || entry.getName().equals(OF_NAMES));
            if (entry instanceof DirectoryNode below) {
                add(below, false, digest, depth + 1);
            } else if (!isOfSignature && entry instanceof DocumentEntry document) {
                try (InputStream in = new DocumentInputStream(document)) {
                    Digests.add(in, digest);
                }
            }
        }
        digest.update(written(storage.getStorageClsid()));
    }

    /** As it lies in the file: its first three numbers little end first. */
    private static byte[] written(@Nullable ClassID id) {
        byte[] bytes = new byte[ClassID.LENGTH];
        if (id != null) {
            id.write(bytes, 0);
        }
        return bytes;
    }
}
