package rivo.formats.installer;

import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.bouncycastle.asn1.ASN1Encodable;
import org.bouncycastle.asn1.ASN1InputStream;
import org.bouncycastle.asn1.ASN1ObjectIdentifier;
import org.bouncycastle.asn1.ASN1Sequence;
import org.bouncycastle.asn1.cms.Attribute;
import org.bouncycastle.asn1.cms.AttributeTable;
import org.bouncycastle.asn1.cms.CMSAttributes;
import org.bouncycastle.asn1.cms.ContentInfo;
import org.bouncycastle.asn1.cms.Time;
import org.bouncycastle.asn1.x509.DigestInfo;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cms.CMSException;
import org.bouncycastle.cms.CMSSignedData;
import org.bouncycastle.cms.SignerInformation;
import org.bouncycastle.cms.jcajce.JcaSimpleSignerInfoVerifierBuilder;
import org.bouncycastle.operator.OperatorCreationException;
import org.bouncycastle.tsp.TSPException;
import org.bouncycastle.tsp.TimeStampToken;
import org.bouncycastle.util.Store;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.FileSignature.State;

/**
 * A signature as Windows programs, Windows Installer databases and MSIX packages carry it (RFC 5652; "Windows Authenticode Portable Executable
 * Signature Format", Microsoft): signed is not the file but a digest of it.
 *
 * @param digest what the file has to come to
 * @param algorithm by which, in Java's words
 * @param signature how it stands as far as the signature itself tells: it holds, or is damaged
 */
record CmsSignature(byte[] digest, String algorithm, FileSignature signature) {

    private static final ASN1ObjectIdentifier INDIRECT_DATA = new ASN1ObjectIdentifier("1.3.6.1.4.1.311.2.1.4");
    private static final ASN1ObjectIdentifier NESTED = new ASN1ObjectIdentifier("1.3.6.1.4.1.311.2.4.1");
    private static final ASN1ObjectIdentifier TIME_STAMP = new ASN1ObjectIdentifier("1.3.6.1.4.1.311.3.3.1");
    private static final Map<String, String> ALGORITHMS = Map.of("1.2.840.113549.2.5", "MD5", "1.3.14.3.2.26", "SHA-1",
            "2.16.840.1.101.3.4.2.1", "SHA-256", "2.16.840.1.101.3.4.2.2", "SHA-384", "2.16.840.1.101.3.4.2.3", "SHA-512");
    private static final List<String> WEAK = List.of("MD5", "SHA-1");
    private static final int MOST_CERTIFICATES = 100;
    private static final int DEEPEST = 4;

    /** The strongest of those that it holds; one that cannot be read is damaged. */
    static CmsSignature read(byte[] pkcs7, ReadingBudget budget) throws IOException {
        // What is made of it comes to many times its own size.
        budget.hold(20L * pkcs7.length);
        budget.work(pkcs7.length);
        try {
            return read(pkcs7, 0);
        } catch (CMSException | GeneralSecurityException | OperatorCreationException | TSPException | IOException | RuntimeException e) {
            return damaged(FileSignature.NONE, "the signature cannot be read");
        }
    }

    private static CmsSignature damaged(FileSignature from, String why) {
        return new CmsSignature(new byte[0], "SHA-256", from.changed(why));
    }

    private static CmsSignature read(byte[] pkcs7, int depth) throws CMSException, GeneralSecurityException, OperatorCreationException, TSPException, IOException {
        CMSSignedData signed;
        try (ASN1InputStream in = new ASN1InputStream(pkcs7)) {
            signed = new CMSSignedData(ContentInfo.getInstance(in.readObject()));
        }
        SignerInformation signer = signed.getSignerInfos().getSigners().iterator().next();
        Store<X509CertificateHolder> certificates = signed.getCertificates();
        List<X509CertificateHolder> chain = chain(certificates, signer);
        if (!signed.getSignedContentTypeOID().equals(INDIRECT_DATA.getId()) || chain.isEmpty()) {
            return damaged(FileSignature.NONE, "the signature is of something else than a file");
        }
        DigestInfo digest = DigestInfo.getInstance(ASN1Sequence.getInstance(signed.getSignedContent().getContent()).getObjectAt(1));
        String algorithm = ALGORITHMS.get(digest.getAlgorithmId().getAlgorithm().getId());
        Stamp stamp = stamp(signer, certificates);
        String weak = Stream.of(algorithm, ALGORITHMS.get(signer.getDigestAlgOID())).filter(one -> one != null && WEAK.contains(one)).findFirst().orElse(null);
        String weakness = weak == null ? "" : "signed by way of " + weak + ", a digest for which other files can be made to fit";
        FileSignature found = new FileSignature(State.HOLDS, Signers.organisation(chain.get(0).getSubject().toString()), encoded(chain), stamp.at(), stamp.chain(),
                weakness, "");
        if (algorithm == null) {
            return damaged(found, "the digest that was signed is of a kind that is not known");
        }
        if (!holds(signer, chain.get(0))) {
            return damaged(found, "the signature was not made by the key of its certificate");
        }
        CmsSignature outer = new CmsSignature(digest.getDigest(), algorithm, found);
        ASN1Encodable nested = attribute(signer.getUnsignedAttributes(), NESTED);
        if (nested != null && depth < DEEPEST) {
            CmsSignature inner = read(nested.toASN1Primitive().getEncoded(), depth + 1);
            return inner.signature.state() == State.HOLDS && inner.digest.length > outer.digest.length ? inner : outer;
        }
        return outer;
    }

    /** Whether the file comes to the digest that was signed. */
    FileSignature of(byte[] come) {
        return signature.state() != State.HOLDS || MessageDigest.isEqual(come, digest) ? signature : signature.changed("the file does not come to the digest that was signed");
    }

    MessageDigest digester() throws IOException {
        return Digests.of(algorithm);
    }

    private static boolean holds(SignerInformation signer, X509CertificateHolder certificate)
            throws CMSException, OperatorCreationException, GeneralSecurityException, IOException {
        try {
            // By the key alone: when the certificate was valid is judged later, by the time stamp.
            return signer.verify(new JcaSimpleSignerInfoVerifierBuilder().build(Signers.certificate(certificate.getEncoded()).getPublicKey()));
        } catch (CMSException e) {
            return false;
        }
    }

    private static @Nullable ASN1Encodable attribute(@Nullable AttributeTable table, ASN1ObjectIdentifier id) {
        Attribute found = table == null ? null : table.get(id);
        return found == null || found.getAttrValues().size() == 0 ? null : found.getAttrValues().getObjectAt(0);
    }

    /** The signer's certificate and those above it, as far as they are there. */
    private static List<X509CertificateHolder> chain(Store<X509CertificateHolder> certificates, SignerInformation signer) {
        Collection<X509CertificateHolder> all = certificates.getMatches(null);
        @SuppressWarnings("unchecked")
        Collection<X509CertificateHolder> own = certificates.getMatches(signer.getSID());
        List<X509CertificateHolder> chain = new ArrayList<>();
        X509CertificateHolder next = all.size() > MOST_CERTIFICATES ? null : own.stream().findFirst().orElse(null);
        while (next != null && !chain.contains(next)) {
            chain.add(next);
            X509CertificateHolder below = next;
            next = all.stream().filter(one -> one.getSubject().equals(below.getIssuer()) && !one.equals(below)).findFirst().orElse(null);
        }
        return chain;
    }

    private static List<byte[]> encoded(List<X509CertificateHolder> chain) throws IOException {
        List<byte[]> all = new ArrayList<>();
        for (X509CertificateHolder one : chain) {
            all.add(one.getEncoded());
        }
        return all;
    }

    private record Stamp(@Nullable Instant at, List<byte[]> chain) {

        static final Stamp NONE = new Stamp(null, List.of());
    }

    /** RFC 3161's, else the countersignature that came before it (RFC 2985, 5.3.6); one that does not hold counts as none. */
    private static Stamp stamp(SignerInformation signer, Store<X509CertificateHolder> certificates)
            throws CMSException, OperatorCreationException, GeneralSecurityException, TSPException, IOException {
        ASN1Encodable token = attribute(signer.getUnsignedAttributes(), TIME_STAMP);
        if (token != null) {
            return stamp(signer, new TimeStampToken(ContentInfo.getInstance(token)));
        }
        for (SignerInformation counter : signer.getCounterSignatures().getSigners()) {
            List<X509CertificateHolder> chain = chain(certificates, counter);
            ASN1Encodable time = attribute(counter.getSignedAttributes(), CMSAttributes.signingTime);
            if (time != null && !chain.isEmpty() && holds(counter, chain.get(0))) {
                return new Stamp(Time.getInstance(time).getDate().toInstant(), encoded(chain));
            }
        }
        return Stamp.NONE;
    }

    private static Stamp stamp(SignerInformation signer, TimeStampToken token) throws CMSException, OperatorCreationException, GeneralSecurityException, IOException {
        CMSSignedData signed = token.toCMSSignedData();
        SignerInformation authority = signed.getSignerInfos().getSigners().iterator().next();
        List<X509CertificateHolder> chain = chain(signed.getCertificates(), authority);
        String algorithm = ALGORITHMS.get(token.getTimeStampInfo().getMessageImprintAlgOID().getId());
        boolean isOfThis = algorithm != null && Arrays.equals(MessageDigest.getInstance(algorithm).digest(signer.getSignature()),
                token.getTimeStampInfo().getMessageImprintDigest());
        return isOfThis && !chain.isEmpty() && holds(authority, chain.get(0))
                ? new Stamp(Objects.requireNonNull(token.getTimeStampInfo().getGenTime()).toInstant(), encoded(chain)) : Stamp.NONE;
    }
}
