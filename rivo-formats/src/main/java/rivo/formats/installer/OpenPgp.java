package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import org.bouncycastle.bcpg.ArmoredInputStream;
import org.bouncycastle.bcpg.HashAlgorithmTags;
import org.bouncycastle.openpgp.PGPException;
import org.bouncycastle.openpgp.PGPPublicKey;
import org.bouncycastle.openpgp.PGPPublicKeyRing;
import org.bouncycastle.openpgp.PGPSignature;
import org.bouncycastle.openpgp.PGPSignatureList;
import org.bouncycastle.openpgp.PGPUtil;
import org.bouncycastle.openpgp.jcajce.JcaPGPObjectFactory;
import org.bouncycastle.openpgp.operator.bc.BcPGPContentVerifierBuilderProvider;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.FileSignature.State;

/**
 * OpenPGP signatures (RFC 9580) of packages. They carry no certificate, only the id of a key: whose it is, and whether they hold, is known where somebody has
 * given the key.
 */
final class OpenPgp {

    private static final int MOST_KEYS = 1000;

    private OpenPgp() {
    }

    /** Of a signature that stands beside what it is of. */
    static FileSignature detached(byte[] signature, List<byte[]> keys, InputStream signed, ReadingBudget budget) throws IOException {
        budget.hold(20L * signature.length);
        try (InputStream in = signed) {
            PGPSignature read = first(PGPUtil.getDecoderStream(new ByteArrayInputStream(signature)));
            PGPPublicKey key = read == null ? null : key(read, keys);
            if (read == null || key == null) {
                return unknown(read);
            }
            read.init(new BcPGPContentVerifierBuilderProvider(), key);
            byte[] part = new byte[1 << 16];
            for (int n = in.read(part); n >= 0; n = in.read(part)) {
                read.update(part, 0, n);
            }
            return judged(read, key, read.verify(), "it was changed after it was signed");
        } catch (PGPException | RuntimeException e) {
            return FileSignature.notChecked(null, "its OpenPGP signature cannot be read");
        }
    }

    /** Of a signed text that lists the digests of the files (dpkg-sig). */
    static FileSignature ofList(byte[] text, List<byte[]> keys, Path file, List<ArFile.Member> signed, ReadingBudget budget) throws IOException {
        budget.hold(40L * text.length);
        try (ArmoredInputStream in = new ArmoredInputStream(new ByteArrayInputStream(text))) {
            List<byte[]> lines = lines(in);
            PGPSignature read = first(in);
            PGPPublicKey key = read == null ? null : key(read, keys);
            if (read == null || key == null) {
                return unknown(read);
            }
            read.init(new BcPGPContentVerifierBuilderProvider(), key);
            for (int i = 0; i < lines.size(); i++) {
                if (i > 0) {
                    read.update("\r\n".getBytes(StandardCharsets.US_ASCII));
                }
                read.update(lines.get(i));
            }
            boolean holds = read.verify();
            String changed = holds ? changed(lines, file, signed) : "its list of files";
            return judged(read, key, changed == null, changed + " was changed after it was signed");
        } catch (PGPException | RuntimeException e) {
            return FileSignature.notChecked(null, "its OpenPGP signature cannot be read");
        }
    }

    /** Without what stands behind their last letter, as they are signed (RFC 9580, 7.2). */
    private static List<byte[]> lines(ArmoredInputStream in) throws IOException {
        List<byte[]> lines = new ArrayList<>();
        ByteArrayOutputStream line = new ByteArrayOutputStream();
        for (int b = in.read(); b >= 0 && in.isClearText(); b = in.read()) {
            if (b == '\n') {
                lines.add(line.toString(StandardCharsets.ISO_8859_1).replaceFirst("[ \t\r]+$", "").getBytes(StandardCharsets.ISO_8859_1));
                line.reset();
            } else {
                line.write(b);
            }
        }
        if (line.size() > 0) {
            lines.add(line.toString(StandardCharsets.ISO_8859_1).replaceFirst("[ \t\r]+$", "").getBytes(StandardCharsets.ISO_8859_1));
        }
        return lines;
    }

    /** Each line of a file has its MD5, SHA-1, size and name. */
    private static @Nullable String changed(List<byte[]> lines, Path file, List<ArFile.Member> signed) throws IOException {
        for (ArFile.Member member : signed) {
            MessageDigest digest = Digests.of("SHA-1");
            try (InputStream in = ArFile.stream(file, member)) {
                Digests.add(in, digest);
            }
            String wanted = HexFormat.of().formatHex(digest.digest());
            boolean isListed = lines.stream().map(line -> new String(line, StandardCharsets.ISO_8859_1).strip().split("\\s+"))
                    .anyMatch(words -> words.length == 4 && words[3].equals(member.name()) && words[1].equals(wanted) && words[2].equals(String.valueOf(member.size())));
            if (!isListed) {
                return member.name();
            }
        }
        return null;
    }

    private static FileSignature judged(PGPSignature read, PGPPublicKey key, boolean holds, String problem) {
        boolean isWeak = read.getHashAlgorithm() == HashAlgorithmTags.SHA1 || read.getHashAlgorithm() == HashAlgorithmTags.MD5;
        FileSignature signature = new FileSignature(State.HOLDS, owner(key), List.of(), null, List.of(),
                isWeak ? "signed by way of a digest for which other files can be made to fit" : "", "");
        return holds ? signature : signature.changed(problem);
    }

    static String owner(PGPPublicKey key) {
        Iterator<String> ids = key.getUserIDs();
        return ids.hasNext() ? ids.next().replaceFirst("\\s*<.*", "") : id(key.getKeyID());
    }

    private static FileSignature unknown(@Nullable PGPSignature read) {
        return read == null ? FileSignature.notChecked(null, "its OpenPGP signature cannot be read")
                : FileSignature.notChecked("OpenPGP key " + id(read.getKeyID()), "that key is not known here");
    }

    private static String id(long key) {
        return String.format(Locale.ROOT, "%016X", key);
    }

    private static @Nullable PGPSignature first(InputStream in) throws IOException {
        Object read = new JcaPGPObjectFactory(in).nextObject();
        return read instanceof PGPSignatureList all && !all.isEmpty() ? all.get(0) : null;
    }

    private static @Nullable PGPPublicKey key(PGPSignature signature, List<byte[]> keys) {
        for (byte[] one : keys) {
            for (PGPPublicKey key : keys(one)) {
                if (key.getKeyID() == signature.getKeyID()) {
                    return key;
                }
            }
        }
        return null;
    }

    /** A key that somebody gives, with those below it; none where it is none. */
    static List<PGPPublicKey> keys(byte[] given) {
        List<PGPPublicKey> keys = new ArrayList<>();
        try {
            JcaPGPObjectFactory objects = new JcaPGPObjectFactory(PGPUtil.getDecoderStream(new ByteArrayInputStream(given)));
            for (Object one = objects.nextObject(); one != null && keys.size() < MOST_KEYS; one = objects.nextObject()) {
                if (one instanceof PGPPublicKeyRing ring) {
                    ring.getPublicKeys().forEachRemaining(keys::add);
                }
            }
        } catch (IOException | RuntimeException e) {
            return List.of();
        }
        return keys;
    }
}
