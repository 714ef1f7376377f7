package rivo.server.fleet;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.MessageKey;
import rivo.server.ServerSettings;
import rivo.server.storage.PrivateFiles;

/**
 * The server's private keys, from which and from a device's public key both sides derive what they sign with. They lie in files
 * of their own, {@code keys/server-N.key}, or the current one comes from the environment; the database has none of them, so a copy
 * of it speaks for nobody. Immutable after the start.
 *
 * <p>The one with the highest number is current: tokens carry it, and devices that sign with an earlier one are told of it. An
 * earlier one counts as long as its file is there.
 */
@Component
public class ServerKeys {

    private static final String PREFIX = "server-";
    private static final String SUFFIX = ".key";

    private record Numbered(int number, AgreementKey key) {
    }

    private final List<AgreementKey> keys;

    ServerKeys(ServerSettings settings) throws IOException {
        Path folder = folder(settings.data());
        List<AgreementKey> read = new ArrayList<>();
        if (settings.serverKey() != null) {
            read.add(fromEnvironment(settings.serverKey()));
        }
        List<Numbered> files = read(folder);
        if (read.isEmpty() && files.isEmpty()) {
            makeNext(settings.data());
            files = read(folder);
        }
        files.forEach(one -> read.add(one.key()));
        this.keys = List.copyOf(read);
    }

    private static AgreementKey fromEnvironment(String text) {
        try {
            return AgreementKey.of(text.strip());
        } catch (IllegalArgumentException e) {
            throw new IllegalStateException("RIVO_SERVER_KEY is not a key: it has 32 bytes in base64url, which is "
                    + AgreementKey.TEXT_LENGTH + " characters.", e);
        }
    }

    private static Path folder(Path data) throws IOException {
        return PrivateFiles.folder(data.resolve("keys"));
    }

    /** The highest number first. */
    private static List<Numbered> read(Path folder) throws IOException {
        List<Numbered> found = new ArrayList<>();
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, PREFIX + "*" + SUFFIX)) {
            for (Path file : files) {
                String name = file.getFileName().toString();
                try {
                    int number = Integer.parseInt(name.substring(PREFIX.length(), name.length() - SUFFIX.length()));
                    found.add(new Numbered(number, AgreementKey.of(Files.readString(file).strip())));
                } catch (IllegalArgumentException e) {
                    throw new IllegalStateException("The server's key in " + file + " cannot be read: it is damaged, or its name is "
                            + "not server-NUMBER.key. Put it back from a copy; without it the devices that know it have to enrol anew.", e);
                }
            }
        }
        found.sort(Comparator.comparingInt(Numbered::number).reversed());
        return found;
    }

    /**
     * Makes a new key beside those that are there; it becomes current at the next start.
     *
     * @return its file
     */
    public static Path makeNext(Path data) throws IOException {
        Path folder = folder(data);
        int number = read(folder).stream().mapToInt(Numbered::number).max().orElse(0) + 1;
        return PrivateFiles.write(folder.resolve(PREFIX + number + SUFFIX), AgreementKey.random().secretText() + "\n");
    }

    AgreementKey current() {
        return keys.get(0);
    }

    /** The key that devices name by this tag; null when there is none any more. */
    @Nullable AgreementKey tagged(String tag) {
        for (AgreementKey key : keys) {
            if (MessageKey.tag(key.publicKey()).equals(tag)) {
                return key;
            }
        }
        return null;
    }

    String currentTag() {
        return MessageKey.tag(current().publicKey());
    }
}
