package rivo.server.catalogue.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;
import rivo.server.estate.Json;
import rivo.server.storage.PrivateFiles;
import rivo.server.web.ApiException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;

/**
 * Files on their way in, part by part: what has arrived stays over a broken connection and over a restart, for three
 * days. Safe for any number of threads; parts of one file come one after the other.
 */
@Component
public class Uploads {

    /** The largest file, in bytes. */
    static final long LARGEST = 64L << 30;
    /** The largest part, in bytes. */
    public static final long LARGEST_PART = 16L << 20;
    private static final Duration KEPT = Duration.ofDays(3);
    private static final int MOST_AT_ONCE = 20;
    private static final long ROOM_LEFT = 1L << 30;
    private static final Pattern ID = Pattern.compile("[0-9a-f]{32}");

    /**
     * @param size of the whole, in bytes
     * @param received so far; the next part begins there
     */
    public record Upload(String id, String who, String fileName, long size, Instant begun, long received) {
    }

    private final Path folder;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();
    private final Map<String, Object> locks = new ConcurrentHashMap<>();

    Uploads(ServerSettings settings, Clock clock) throws IOException {
        this.folder = PrivateFiles.folder(settings.data().resolve("uploads"));
        this.clock = clock;
    }

    /**
     * Begins one. Those that are under way have their room already, however little of them has arrived.
     *
     * @throws ApiException when the file is empty, too large, or there is no room for it
     */
    public synchronized Upload begin(String who, @Nullable String fileName, long size) {
        String name = fileName == null ? "" : FileNames.tidied(fileName);
        if (!FileNames.isPlain(name)) {
            throw refused("bad-name", "A file name has 1 to " + FileNames.LONGEST + " characters, and none that a path or a command "
                    + "would read; rename the file.");
        }
        if (size <= 0) {
            throw refused("empty-file", name + " is empty; fetch it anew from where it came from.");
        }
        if (size > LARGEST) {
            throw refused("too-large", name + " has more than " + (LARGEST >> 30) + " GiB; split it.");
        }
        List<Upload> open = open();
        if (open.stream().filter(u -> u.who().equals(who)).count() >= MOST_AT_ONCE) {
            throw refused("too-many", "You have " + MOST_AT_ONCE + " unfinished uploads; finish or cancel one first.");
        }
        byte[] id = new byte[16];
        random.nextBytes(id);
        Upload upload = new Upload(HexFormat.of().formatHex(id), who, name, size, clock.instant(), 0);
        try {
            long promised = open.stream().mapToLong(u -> u.size() - u.received()).sum();
            if (Files.getFileStore(folder).getUsableSpace() - promised - size < ROOM_LEFT) {
                throw ApiException.refused(HttpStatus.INSUFFICIENT_STORAGE, "no-room",
                        "The server has no room for " + name + "; make room on its disk, then try again.");
            }
            PrivateFiles.write(part(upload.id()), "");
            PrivateFiles.write(about(upload.id()), Json.write(upload));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return upload;
    }

    /** How much can be unpacked besides what uploads under way have been promised, in bytes. */
    public long room() throws IOException {
        long promised = open().stream().mapToLong(u -> u.size() - u.received()).sum();
        return Math.max(0, Files.getFileStore(folder).getUsableSpace() - promised - ROOM_LEFT);
    }

    /** @throws ApiException when there is none of this id that this person began */
    public Upload get(String id, String who) {
        Upload upload = ID.matcher(id).matches() ? read(about(id)) : null;
        if (upload == null || !upload.who().equals(who)) {
            throw ApiException.notFound("no-upload", "This upload no longer exists; drop the file again.");
        }
        return upload;
    }

    private List<Upload> open() {
        List<Upload> open = new ArrayList<>();
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*.json")) {
            for (Path file : files) {
                Upload upload = read(file);
                if (upload != null) {
                    open.add(upload);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return open;
    }

    /** Those that this person has begun and not finished. */
    public List<Upload> of(String who) {
        return open().stream().filter(u -> u.who().equals(who)).toList();
    }

    /** Null when there is none, or a kill came while it was written, or between its becoming content and its being forgotten. */
    private @Nullable Upload read(Path about) {
        try {
            if (!Files.exists(about)) {
                return null;
            }
            Upload told = Json.read(Files.readString(about), new TypeReference<Upload>() {
            });
            boolean whole = told != null && told.id() != null && ID.matcher(told.id()).matches();
            return whole && Files.exists(part(told.id())) ? new Upload(told.id(), told.who(), told.fileName(), told.size(),
                    told.begun(), Files.size(part(told.id()))) : null;
        } catch (JacksonException e) {
            return null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Appends a part. What had arrived of one that broke off is kept.
     *
     * @throws ApiException when it does not begin where the last one ended, or goes beyond the end
     */
    public Upload append(String id, String who, long offset, InputStream in) throws IOException {
        get(id, who);
        synchronized (locks.computeIfAbsent(id, k -> new Object())) {
            Upload upload = get(id, who);
            if (offset != upload.received()) {
                throw ApiException.conflict("other-offset", "So far " + upload.received()
                        + " bytes have arrived; go on from there.");
            }
            long room = Math.min(LARGEST_PART, upload.size() - offset);
            try (OutputStream out = Files.newOutputStream(part(id), StandardOpenOption.APPEND)) {
                byte[] buffer = new byte[1 << 16];
                int n;
                while ((n = in.read(buffer, 0, (int) Math.min(buffer.length, room + 1))) > 0) {
                    if (n > room) {
                        throw refused("too-much", "A part has at most " + LARGEST_PART
                                + " bytes and ends where the file ends; ask how much has arrived, and go on from there.");
                    }
                    out.write(buffer, 0, n);
                    room -= n;
                }
            }
            return get(id, who);
        }
    }

    /** The whole file. @throws ApiException when something is missing yet */
    public Path whole(String id, String who) {
        Upload upload = get(id, who);
        if (upload.received() != upload.size()) {
            throw ApiException.conflict("not-whole", upload.received() + " of " + upload.size()
                    + " bytes have arrived; send the rest first.");
        }
        return part(id);
    }

    public void forget(String id, String who) {
        get(id, who);
        delete(id);
    }

    /** Forgets one that has become content, or shall not. */
    public void delete(String id) {
        try {
            Files.deleteIfExists(about(id));
            Files.deleteIfExists(part(id));
            locks.remove(id);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Cleans up after those who never came back. */
    @Scheduled(initialDelayString = "PT5M", fixedDelayString = "PT6H")
    void forgetOld() {
        Instant since = clock.instant().minus(KEPT);
        open().stream().filter(u -> u.begun().isBefore(since)).forEach(u -> delete(u.id()));
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder)) {
            for (Path file : files) {
                String id = file.getFileName().toString().replaceFirst("\\.[a-z]+$", "");
                boolean old = Files.getLastModifiedTime(file).toInstant().isBefore(since);
                if (old && read(about(id)) == null) {
                    Files.deleteIfExists(file);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Path part(String id) {
        return folder.resolve(id + ".part");
    }

    private Path about(String id) {
        return folder.resolve(id + ".json");
    }

    private static ApiException refused(String code, String sentence) {
        return ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, code, sentence);
    }
}
