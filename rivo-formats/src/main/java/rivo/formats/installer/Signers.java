package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.List;
import javax.naming.InvalidNameException;
import javax.naming.ldap.LdapName;
import javax.naming.ldap.Rdn;
import org.jspecify.annotations.Nullable;

/** Who signed, by the certificates in a PKCS #7 signature (RFC 2315). Whether the signature holds is not checked. */
final class Signers {

    private static final int MOST_CERTIFICATES = 100;

    private Signers() {
    }

    /** The organisation of the certificate that issued no other, else its common name; null when none is told. */
    static @Nullable String of(byte[] pkcs7, ReadingBudget budget) throws IOException {
        List<X509Certificate> certificates = new ArrayList<>();
        // Each certificate comes to many times its own size.
        budget.hold(20L * pkcs7.length);
        try {
            for (var certificate : CertificateFactory.getInstance("X.509")
                    .generateCertificates(new ByteArrayInputStream(pkcs7))) {
                certificates.add((X509Certificate) certificate);
            }
            budget.work(pkcs7.length);
            if (certificates.size() > MOST_CERTIFICATES) {
                return null;
            }
        } catch (CertificateException | RuntimeException e) {
            return null;
        }
        for (X509Certificate one : certificates) {
            boolean issues = certificates.stream().anyMatch(other -> other != one
                    && other.getIssuerX500Principal().equals(one.getSubjectX500Principal()));
            if (!issues) {
                return organisation(one.getSubjectX500Principal().getName());
            }
        }
        return null;
    }

    /** The organisation in a distinguished name (RFC 4514), else its common name. */
    static @Nullable String organisation(String name) {
        try {
            String common = null;
            for (Rdn rdn : new LdapName(name).getRdns()) {
                if (rdn.getType().equalsIgnoreCase("O")) {
                    return String.valueOf(rdn.getValue());
                }
                if (rdn.getType().equalsIgnoreCase("CN")) {
                    common = String.valueOf(rdn.getValue());
                }
            }
            return common;
        } catch (InvalidNameException e) {
            return null;
        }
    }
}
