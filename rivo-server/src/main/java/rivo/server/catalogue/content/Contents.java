package rivo.server.catalogue.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.DigestInputStream;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.HexFormat;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;
import rivo.server.storage.PrivateFiles;
import rivo.server.web.ApiException;

/**
 * Content, kept once by its SHA-256 in a folder beside the database. A file is there whole or not at all: what a
 * kill cut off is deleted at the next start. Safe for any number of threads.
 */
@Component
public class Contents {

    private static final Pattern SHA256 = Pattern.compile("[0-9a-f]{64}");

    /**
     * A file that is kept.
     *
     * @param signer who has signed it, as it was read; null when nobody has, or nobody has looked
     */
    public record Content(String sha256, long size, String fileName, @Nullable String signer) {
        public Content(String sha256, long size, String fileName) {
            this(sha256, size, fileName, null);
        }
    }

    /** Ends the name of the file that marks content as unused, and holds the instant since when. */
    private static final String UNUSED = ".unused";

    private final Path folder;
    /** Those whose hash has been checked since the start. */
    private final Set<String> checked = ConcurrentHashMap.newKeySet();
    private final Set<String> beingChecked = ConcurrentHashMap.newKeySet();

    Contents(ServerSettings settings) throws IOException {
        this.folder = PrivateFiles.folder(settings.data().resolve("content"));
        try (DirectoryStream<Path> cutOff = Files.newDirectoryStream(folder, "incoming*.part")) {
            for (Path file : cutOff) {
                Files.delete(file);
            }
        }
    }

    /** Keeps what the stream holds. */
    public Content keep(InputStream in, String fileName) throws IOException {
        return keep(in, fileName, null);
    }

    /** Keeps what the stream holds if it is what was expected; says in any case what it is. */
    public Content keepIf(InputStream in, Content expected) throws IOException {
        return keep(in, expected.fileName(), expected);
    }

    private Content keep(InputStream in, String fileName, @Nullable Content expected) throws IOException {
        Path part = Files.createTempFile(folder, "incoming", ".part");
        try {
            MessageDigest digest = sha256();
            long size;
            try (OutputStream out = Files.newOutputStream(part);
                    DigestInputStream digesting = new DigestInputStream(in, digest)) {
                size = digesting.transferTo(out);
            }
            String hash = HexFormat.of().formatHex(digest.digest());
            if (expected == null || expected.sha256().equals(hash) && expected.size() == size) {
                kept(part, hash);
            }
            return new Content(hash, size, fileName);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** Keeps a file that is on the same disk already, by moving it. */
    public Content take(Path whole, String fileName) throws IOException {
        MessageDigest digest = sha256();
        long size;
        try (DigestInputStream in = new DigestInputStream(Files.newInputStream(whole), digest)) {
            size = in.transferTo(OutputStream.nullOutputStream());
        }
        String hash = HexFormat.of().formatHex(digest.digest());
        kept(whole, hash);
        return new Content(hash, size, fileName);
    }

    /**
     * Deletes what has not been used for so long. What is seen unused for the first time is marked by a file beside it.
     *
     * @param used the hashes of what is in use
     * @return how many were deleted
     */
    public int forgetUnused(Set<String> used, Instant now, Duration kept) throws IOException {
        int deleted = 0;
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder)) {
            for (Path file : files) {
                String hash = file.getFileName().toString();
                Path mark = folder.resolve(hash + UNUSED);
                if (!isHash(hash)) {
                    continue;
                }
                if (used.contains(hash)) {
                    Files.deleteIfExists(mark);
                } else if (!Files.exists(mark)) {
                    Files.writeString(mark, now.toString());
                } else if (since(mark, now).plus(kept).isBefore(now)) {
                    Files.deleteIfExists(file);
                    Files.deleteIfExists(mark);
                    checked.remove(hash);
                    deleted++;
                }
            }
        }
        return deleted;
    }

    /** A mark that a kill cut off counts from now. */
    private static Instant since(Path mark, Instant now) throws IOException {
        try {
            return Instant.parse(Files.readString(mark));
        } catch (DateTimeParseException e) {
            Files.writeString(mark, now.toString());
            return now;
        }
    }

    /** On disk before anybody can name it, its name too. What comes in again is new. */
    private void kept(Path part, String hash) throws IOException {
        PrivateFiles.force(part);
        Files.deleteIfExists(folder.resolve(hash + UNUSED));
        Files.move(part, folder.resolve(hash), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        PrivateFiles.forceFolder(folder);
        checked.add(hash);
    }

    public static boolean isHash(String text) {
        return SHA256.matcher(text).matches();
    }

    /** Whether the file is there, without looking into it. */
    public boolean has(Content content) {
        return isHash(content.sha256()) && Files.isRegularFile(folder.resolve(content.sha256()));
    }

    /**
     * The file with this hash. At its first use since the start it is hashed again.
     *
     * @throws ApiException when there is none, or when what is kept is damaged
     */
    public Path file(String hash) {
        Path file = folder.resolve(isHash(hash) ? hash : "none");
        if (!Files.isRegularFile(file)) {
            throw none(hash);
        }
        if (!checked.contains(hash)) {
            check(file, hash);
        }
        return file;
    }

    /** Said alike of content that is not there and of content that whoever asks may not have. */
    public static ApiException none(String hash) {
        return ApiException.notFound("no-content", "There is no content with the SHA-256 " + hash
                + "; call in again for current jobs.");
    }

    /** One at a time: who comes while it is being hashed comes again, rather than hashing it, too. */
    private void check(Path file, String hash) {
        if (!beingChecked.add(hash)) {
            throw ApiException.busy("being-checked", "The content " + hash + " is being checked; ask again in a moment.");
        }
        try {
            hash(file, hash);
        } finally {
            beingChecked.remove(hash);
        }
    }

    private void hash(Path file, String hash) {
        try (DigestInputStream in = new DigestInputStream(Files.newInputStream(file), sha256())) {
            in.transferTo(OutputStream.nullOutputStream());
            if (!HexFormat.of().formatHex(in.getMessageDigest().digest()).equals(hash)) {
                throw ApiException.refused(HttpStatus.INTERNAL_SERVER_ERROR, "content-damaged", "The content " + hash
                        + " is damaged on the server; add the file to the catalogue again.");
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        checked.add(hash);
    }

    public static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
