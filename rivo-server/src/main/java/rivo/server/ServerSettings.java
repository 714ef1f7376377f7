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
 * @param serverKey the server's private key, where it does not lie in the data folder; null when it does
 * @param secure whether people reach the server by TLS, its own or that of a proxy before it
 * @param localMirrors whether mirrors may be on this computer or at link-local addresses
 * @param clientPatience how long a client may let the server wait for the rest of a request
 * @param directory where the directory is; null without one, when only the trial account can sign in
 * @param estate an estate file that an empty data folder is filled from; null for none
 * @param trialPassword of the one account there is without a directory, {@code administrator}; null when there is none
 */
@ConfigurationProperties("rivo")
public record ServerSettings(Path data, @DefaultValue("15m") Duration callInEvery, @Nullable String serverKey,
        @DefaultValue("false") boolean secure, @DefaultValue("false") boolean localMirrors,
        @DefaultValue("30s") Duration clientPatience, @DefaultValue ReportLimits reports, @Nullable DirectorySection directory, @Nullable Path estate, @Nullable String trialPassword) {

    /** With defaults, and without a directory. */
    public static ServerSettings at(Path data) {
        return new ServerSettings(data, Duration.ofMinutes(15), null, false, false, Duration.ofSeconds(30), new ReportLimits(60, 32), null, null, null);
    }

    /**
     * How much one device may report.
     *
     * @param aMinute reports
     * @param mebibytesADay of all their bodies together
     */
    public record ReportLimits(@DefaultValue("60") int aMinute, @DefaultValue("32") int mebibytesADay) {

        public ReportLimits {
            if (aMinute < 1 || mebibytesADay < 1) {
                throw new IllegalArgumentException("A device may report at least once a minute, and 1 MiB a day.");
            }
        }
    }

    /**
     * The directory.
     *
     * @param startTls whether a connection to {@code ldap://} changes to TLS before anything is said (RFC 4511, section 4.14)
     * @param ca certificates in PEM that are trusted besides none other; null for those that Java trusts
     * @param scanEvery how long between two full scans
     * @param administrators the distinguished name or stable id of the group whose members may sign in, directly or through
     *     other groups
     */
    public record DirectorySection(URI url, String baseDn, String bindDn, String password,
            @DefaultValue("5000") int pageSize, @DefaultValue("10s") Duration patience,
            @DefaultValue("false") boolean startTls, @Nullable Path ca,
            @DefaultValue("2m") Duration scanEvery, String administrators) {

        /** Never shows the password. */
        @Override
        public String toString() {
            return url + " " + baseDn + " as " + bindDn;
        }
    }

    /** Never shows the private key. */
    @Override
    public String toString() {
        return "data " + data + ", directory " + directory;
    }
}
