package rivo.formats.installer;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.cert.CertPath;
import java.security.cert.CertPathValidator;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateFactory;
import java.security.cert.CertificateNotYetValidException;
import java.security.cert.PKIXParameters;
import java.security.cert.TrustAnchor;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Date;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.bouncycastle.openpgp.PGPPublicKey;
import org.jspecify.annotations.Nullable;

/**
 * The roots whose certificates somebody trusts to name whom they belong to (RFC 5280, section 6). Revocation is not looked up: the server asks nobody
 * outside. Immutable.
 */
public record TrustedRoots(List<X509Certificate> roots) {

    private static final String CODE_SIGNING = "1.3.6.1.5.5.7.3.3";
    private static final String TIME_STAMPING = "1.3.6.1.5.5.7.3.8";
    private static final String ANY_PURPOSE = "2.5.29.37.0";
    private static final Pattern PEM = Pattern.compile("-----BEGIN CERTIFICATE-----([A-Za-z0-9+/=\\s]+)-----END CERTIFICATE-----");

    public TrustedRoots {
        roots = List.copyOf(roots);
    }

    /** How far a signature that holds can be trusted. */
    public enum Chain {
        /** Its certificate was issued, in the end, by a root that is trusted, and was valid when it signed. */
        TRUSTED,
        /** No trusted root is above its certificate. */
        UNKNOWN,
        /** A trusted root is, but the certificate was not valid when it signed; without a time stamp, that it is not valid now is enough. */
        EXPIRED
    }

    /**
     * What is to be thought of a signature's certificate.
     *
     * @param root the name of the trusted one; null where there is none
     * @param at the instant that its validity was looked at for: that of a time stamp that can be trusted too, else now
     */
    public record Judgement(Chain chain, @Nullable String root, Instant at) {
    }

    public Judgement judge(FileSignature signature, Instant now) {
        Instant stamped = signature.signedAt();
        boolean isStamped = stamped != null && judge(signature.stampChain(), stamped, TIME_STAMPING).chain() == Chain.TRUSTED;
        return judge(signature.chain(), isStamped ? stamped : now, CODE_SIGNING);
    }

    private Judgement judge(List<byte[]> encoded, @Nullable Instant when, String purpose) {
        Instant at = when == null ? Instant.now() : when;
        Judgement unknown = new Judgement(Chain.UNKNOWN, null, at);
        try {
            List<X509Certificate> chain = new ArrayList<>();
            for (byte[] one : encoded) {
                chain.add(Signers.certificate(one));
            }
            Judgement best = unknown;
            for (X509Certificate root : chain.isEmpty() || !mayServe(chain.get(0), purpose) ? List.<X509Certificate>of() : above(chain)) {
                Judgement one = new Judgement(isValid(chain, root, at), name(root), at);
                // A root that was renewed has the same name.
                best = one.chain() == Chain.TRUSTED || best.chain() == Chain.UNKNOWN ? one : best;
            }
            return best.chain() == Chain.UNKNOWN ? unknown : best;
        } catch (GeneralSecurityException e) {
            return unknown;
        }
    }

    private static boolean mayServe(X509Certificate certificate, String purpose) throws GeneralSecurityException {
        List<String> purposes = certificate.getExtendedKeyUsage();
        return purposes == null || purposes.contains(purpose) || purposes.contains(ANY_PURPOSE);
    }

    /** Those that may have issued the last of them, or are among them. */
    private List<X509Certificate> above(List<X509Certificate> chain) {
        X509Certificate last = chain.get(chain.size() - 1);
        return roots.stream().filter(root -> chain.contains(root) || root.getSubjectX500Principal().equals(last.getIssuerX500Principal())).toList();
    }

    private static Chain isValid(List<X509Certificate> chain, X509Certificate root, Instant at) throws GeneralSecurityException {
        List<X509Certificate> below = chain.stream().takeWhile(one -> !one.equals(root)).toList();
        try {
            root.checkValidity(Date.from(at));
            CertPath path = CertificateFactory.getInstance("X.509").generateCertPath(below);
            PKIXParameters parameters = new PKIXParameters(Set.of(new TrustAnchor(root, null)));
            parameters.setRevocationEnabled(false);
            parameters.setDate(Date.from(at));
            if (!below.isEmpty()) {
                CertPathValidator.getInstance("PKIX").validate(path, parameters);
            }
            return Chain.TRUSTED;
        } catch (CertificateExpiredException | CertificateNotYetValidException e) {
            return Chain.EXPIRED;
        } catch (GeneralSecurityException e) {
            boolean isOver = e.getCause() instanceof CertificateExpiredException || e.getCause() instanceof CertificateNotYetValidException;
            return isOver ? Chain.EXPIRED : Chain.UNKNOWN;
        }
    }

    /** The certificates in what somebody gives: PEM texts, or one in DER; none where it is neither. */
    public static List<X509Certificate> certificates(byte[] given) {
        List<X509Certificate> found = new ArrayList<>();
        try {
            Matcher pem = PEM.matcher(new String(given, StandardCharsets.ISO_8859_1));
            while (pem.find()) {
                found.add(Signers.certificate(Base64.getMimeDecoder().decode(pem.group(1))));
            }
            if (found.isEmpty()) {
                found.add(Signers.certificate(given));
            }
        } catch (GeneralSecurityException | IllegalArgumentException e) {
            return List.of();
        }
        return found;
    }

    /** Whose OpenPGP keys somebody gives, in words; empty where it is none. */
    public static String keyOwners(byte[] given) {
        return OpenPgp.keys(given).stream().filter(PGPPublicKey::isMasterKey).map(OpenPgp::owner).distinct().collect(Collectors.joining(", "));
    }

    /** The organisation, else the common name. */
    public static String name(X509Certificate certificate) {
        String name = certificate.getSubjectX500Principal().getName();
        String organisation = Signers.organisation(name);
        return organisation == null ? name : organisation;
    }
}
