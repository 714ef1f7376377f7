package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.security.GeneralSecurityException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import javax.naming.InvalidNameException;
import javax.naming.ldap.LdapName;
import javax.naming.ldap.Rdn;
import org.jspecify.annotations.Nullable;

/** Whom a certificate names. Pure functions. */
final class Signers {

    private Signers() {
    }

    static X509Certificate certificate(byte[] der) throws GeneralSecurityException {
        return (X509Certificate) CertificateFactory.getInstance("X.509").generateCertificate(new ByteArrayInputStream(der));
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
