package rivo.server;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * How the server is set up; {@code rivo.} properties, which the command line's options become.
 *
 * @param data the folder of everything that Rivo keeps
 * @param callInEvery how long a device may wait until it calls in again
 * @param directory where the directory is; null without one, when nobody can sign in
 */
@ConfigurationProperties("rivo")
public record ServerSettings(Path data, @DefaultValue("15m") Duration callInEvery,
        @Nullable DirectorySection directory) {

    /**
     * The directory.
     *
     * @param scanEvery how long between two full scans
     * @param administrators the name of the group whose members may sign in, directly or through other groups
     */
    public record DirectorySection(URI url, String baseDn, String bindDn, String password,
            @DefaultValue("5000") int pageSize, @DefaultValue("10s") Duration patience,
            @DefaultValue("2m") Duration scanEvery, String administrators) {
    }
}
