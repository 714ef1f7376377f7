package rivo.directory;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Where the directory is and how Rivo reads it.
 *
 * @param url {@code ldap://host:port} or {@code ldaps://host:port}
 * @param baseDn the suffix, which becomes the root OU
 * @param bindDn the account that reads
 * @param pageSize entries a page (RFC 2696), at least 1
 * @param patience how long to wait for a connection, and for each answer
 * @param startTls whether a connection to {@code ldap://} changes to TLS before anything else is said (RFC 4511, section 4.14)
 * @param ca a file of certificates in PEM that alone are trusted; null for those that Java trusts
 */
public record DirectorySettings(URI url, String baseDn, String bindDn, String password, int pageSize,
        Duration patience, boolean startTls, @Nullable Path ca) {

    public DirectorySettings {
        Objects.requireNonNull(baseDn);
        Objects.requireNonNull(bindDn);
        Objects.requireNonNull(password);
        boolean known = "ldap".equals(url.getScheme()) || "ldaps".equals(url.getScheme());
        if (!known || url.getHost() == null) {
            throw new IllegalArgumentException(
                    "The directory's address is " + url + "; give one such as ldaps://directory.example:636.");
        }
        if (startTls && "ldaps".equals(url.getScheme())) {
            throw new IllegalArgumentException("The directory's address is " + url
                    + ", which is TLS from the start; leave StartTLS out, or give an ldap:// address.");
        }
        if (ca != null && !startTls && !"ldaps".equals(url.getScheme())) {
            throw new IllegalArgumentException("The directory at " + url + " is used without TLS, so no certificate is checked; "
                    + "give an ldaps:// address or StartTLS.");
        }
        if (pageSize < 1) {
            throw new IllegalArgumentException("The page size is " + pageSize + "; give at least 1.");
        }
    }

    /** Without TLS. */
    public DirectorySettings(URI url, String baseDn, String bindDn, String password, int pageSize, Duration patience) {
        this(url, baseDn, bindDn, password, pageSize, patience, false, null);
    }

    /** Whether nothing is said without TLS. */
    public boolean secure() {
        return "ldaps".equals(url.getScheme()) || startTls;
    }

    int port() {
        return url.getPort() > 0 ? url.getPort() : "ldaps".equals(url.getScheme()) ? 636 : 389;
    }

    /** Never shows the password. */
    @Override
    public String toString() {
        return url + " " + baseDn + " as " + bindDn;
    }
}
