package rivo.server.catalogue.trust;

import java.time.Instant;
import java.util.Base64;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.FileSignature;

/**
 * What was found of a content's signature when it was read.
 *
 * @param chain the certificates in base 64, the signer's first
 * @param despite why it shall be used although it was changed after it was signed; null where nobody has said so
 */
public record KeptSignature(FileSignature.State state, @Nullable String signer, List<String> chain, @Nullable Instant signedAt, List<String> stampChain, String weakness,
        String problem, @Nullable Despite despite) {

    /** Who has said so, and when. */
    public record Despite(String who, Instant at, String why) {
    }

    public KeptSignature {
        chain = List.copyOf(chain);
        stampChain = List.copyOf(stampChain);
    }

    static KeptSignature of(FileSignature found) {
        return new KeptSignature(found.state(), found.signer(), text(found.chain()), found.signedAt(), text(found.stampChain()), found.weakness(), found.problem(), null);
    }

    FileSignature signature() {
        return new FileSignature(state, signer, bytes(chain), signedAt, bytes(stampChain), weakness, problem);
    }

    KeptSignature despite(@Nullable Despite reason) {
        return new KeptSignature(state, signer, chain, signedAt, stampChain, weakness, problem, reason);
    }

    /** Whether a release with it may not be offered. */
    public boolean isRefused() {
        return state == FileSignature.State.CHANGED && despite == null;
    }

    private static List<String> text(List<byte[]> chain) {
        return chain.stream().map(Base64.getEncoder()::encodeToString).toList();
    }

    private static List<byte[]> bytes(List<String> chain) {
        return chain.stream().map(Base64.getDecoder()::decode).toList();
    }
}
