package rivo.directory;

import java.net.URI;
import java.time.Duration;
import java.util.Objects;

/**
 * Where the directory is and how Rivo reads it.
 *
 * @param url {@code ldap://host:port} or {@code ldaps://host:port}
 * @param baseDn the suffix, which becomes the root OU
 * @param bindDn the account that reads
 * @param pageSize entries a page (RFC 2696), at least 1
 * @param patience how long to wait for a connection, and for each answer
 */
public record DirectorySettings(URI url, String baseDn, String bindDn, String password, int pageSize,
        Duration patience) {

    public DirectorySettings {
        Objects.requireNonNull(baseDn);
        Objects.requireNonNull(bindDn);
        Objects.requireNonNull(password);
        boolean known = "ldap".equals(url.getScheme()) || "ldaps".equals(url.getScheme());
        if (!known || url.getHost() == null) {
            throw new IllegalArgumentException(
                    "The directory's address is " + url + "; give one such as ldaps://directory.example:636.");
        }
        if (pageSize < 1) {
            throw new IllegalArgumentException("The page size is " + pageSize + "; give at least 1.");
        }
    }

    boolean secure() {
        return "ldaps".equals(url.getScheme());
    }

    int port() {
        return url.getPort() > 0 ? url.getPort() : secure() ? 636 : 389;
    }

    /** Never shows the password. */
    @Override
    public String toString() {
        return url + " " + baseDn + " as " + bindDn;
    }
}
