package rivo.directory;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.util.Collection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import org.jspecify.annotations.Nullable;

/** Whose certificates are trusted when the directory is asked by TLS: those that Java trusts, or those of one file and no others. */
final class DirectoryTrust {

    private DirectoryTrust() {
    }

    /** Read anew at each connection, so that a renewed file counts without a restart. */
    static SSLContext of(DirectorySettings settings) {
        try {
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, trust(settings.ca()), null);
            return context;
        } catch (IOException e) {
            throw new DirectoryException("The certificates in " + settings.ca() + " cannot be read (" + e.getMessage()
                    + "); give a file in PEM.", e);
        } catch (GeneralSecurityException e) {
            throw new DirectoryException("The certificates in " + settings.ca() + " cannot be used (" + e.getMessage()
                    + "); give a file with at least one certificate in PEM.", e);
        }
    }

    private static TrustManager @Nullable [] trust(@Nullable Path ca) throws GeneralSecurityException, IOException {
        if (ca == null) {
            return null;
        }
        KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
        store.load(null, null);
        try (InputStream in = Files.newInputStream(ca)) {
            Collection<? extends Certificate> certificates = CertificateFactory.getInstance("X.509").generateCertificates(in);
            for (Certificate certificate : certificates) {
                store.setCertificateEntry("ca" + store.size(), certificate);
            }
        }
        TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        factory.init(store);
        return factory.getTrustManagers();
    }
}
