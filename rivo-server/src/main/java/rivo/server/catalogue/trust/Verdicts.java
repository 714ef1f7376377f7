package rivo.server.catalogue.trust;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import rivo.formats.installer.FileSignature;
import rivo.formats.installer.TrustedRoots;
import rivo.formats.installer.TrustedRoots.Judgement;
import rivo.server.estate.Snapshot;

/**
 * What is said of a signature, in one line. How far a certificate can be trusted is kept for an hour, or until the roots are others: the list of all titles asks for each.
 * Safe for any number of threads.
 */
@Component
public class Verdicts {

    private static final Duration KEPT = Duration.ofHours(1);

    /** @param chains how far each signature can be trusted */
    private record Judged(List<TrustedRoot> by, Instant at, TrustedRoots roots, Map<KeptSignature, Judgement> chains) {
    }

    private volatile Judged judged = new Judged(List.of(), Instant.EPOCH, new TrustedRoots(List.of()), new ConcurrentHashMap<>());

    private Judgement judge(Snapshot now, KeptSignature signature, Instant at) {
        List<TrustedRoot> roots = now.get(Roots.PART);
        Judged known = judged;
        if (known.by() != roots || known.at().plus(KEPT).isBefore(at) || at.isBefore(known.at())) {
            known = new Judged(roots, at, Roots.roots(now), new ConcurrentHashMap<>());
            judged = known;
        }
        TrustedRoots by = known.roots();
        return known.chains().computeIfAbsent(signature, one -> by.judge(one.signature(), at));
    }

    /**
     * How a signature stands here and now.
     *
     * @param code unsigned, trusted, chain-unknown, expired, changed, used-despite, not-checked, or not-read where nobody has looked
     * @param well whether nothing has to be done
     */
    public record Verdict(String code, boolean well, String sentence, String detail) {
    }

    /** @param sha256 of the content */
    public Verdict of(Snapshot now, String sha256, Instant at) {
        KeptSignature kept = now.get(ContentSignatures.PART).get(sha256);
        return kept == null ? new Verdict("not-read", true, "Signature not looked at", "It came without its file having been read here; drop it again to have that done.")
                : of(now, kept, at);
    }

    private Verdict of(Snapshot now, KeptSignature kept, Instant at) {
        FileSignature signature = kept.signature();
        KeptSignature.Despite despite = kept.despite();
        String signer = signature.signer() == null ? "somebody who is not named" : signature.signer();
        return switch (signature.state()) {
            case NONE -> new Verdict("unsigned", true, "Not signed", "Devices compare its SHA-256 with that of the file that was added here.");
            case NOT_CHECKED -> new Verdict("not-checked", true, "Signed, but not checked", "By " + signer + ": " + signature.problem() + ".");
            case CHANGED -> despite == null ? new Verdict("changed", false, "Changed after it was signed", "Of the signature of " + signer + ": " + signature.problem() + ".")
                    : new Verdict("used-despite", true, "Changed after it was signed, and used all the same", despite.who() + ": " + despite.why());
            case HOLDS -> signature.chain().isEmpty() ? new Verdict("trusted", true, "Signed by " + signer, "By an OpenPGP key that was trusted here when the file was added." + weakness(signature))
                    : chain(signature, signer, judge(now, kept, at));
        };
    }

    private static Verdict chain(FileSignature signature, String signer, Judgement judged) {
        String when = signature.signedAt() == null ? "" : " on " + LocalDate.ofInstant(signature.signedAt(), ZoneOffset.UTC);
        return switch (judged.chain()) {
            case TRUSTED -> new Verdict("trusted", true, "Signed by " + signer + when, "Issued by " + judged.root() + ", which is trusted here." + weakness(signature));
            case EXPIRED -> new Verdict("expired", false, "The signer's certificate was not valid", "Issued by " + judged.root() + ", but not valid "
                    + (signature.signedAt() == null ? "now, and no time stamp tells when " + signer + " signed." : "when " + signer + " signed" + when + "."));
            case UNKNOWN -> new Verdict("chain-unknown", true, "Signed by " + signer + when, "The file is as it was signed, but who issued the certificate is not known here."
                    + weakness(signature));
        };
    }

    private static String weakness(FileSignature signature) {
        return signature.weakness().isEmpty() ? "" : " It was " + signature.weakness() + ".";
    }
}
