package rivo.formats.installer;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Whether a file is signed, by whom, and whether it is as it was signed. That the certificate belongs to whom it names is not said here: that hangs on
 * the roots that somebody trusts ({@link TrustedRoots}).
 *
 * @param signer the organisation of the certificate, else its common name; of an OpenPGP signature the key's id
 * @param chain the certificates (X.509, DER), the signer's first, each followed by its issuer's, as far as the file has them
 * @param signedAt when, as a time stamp says that was made over the signature; null without one
 * @param stampChain the certificates of whoever made the time stamp, likewise
 * @param weakness what is to be said of how it was signed, such as a digest that is no longer safe; empty for nothing
 * @param problem of one that does not hold or could not be checked: why; empty for the others
 */
public record FileSignature(State state, @Nullable String signer, List<byte[]> chain, @Nullable Instant signedAt, List<byte[]> stampChain, String weakness, String problem) {

    public static final FileSignature NONE = new FileSignature(State.NONE, null, List.of(), null, List.of(), "", "");

    public FileSignature {
        chain = List.copyOf(chain);
        stampChain = List.copyOf(stampChain);
    }

    /** How it stands. */
    public enum State {
        /** It is not signed. */
        NONE,
        /** It is as it was signed, by the key of that certificate. */
        HOLDS,
        /** It was changed after it was signed, or the signature is damaged. */
        CHANGED,
        /** It is signed in a way that cannot be checked here. */
        NOT_CHECKED
    }

    FileSignature changed(String why) {
        return new FileSignature(State.CHANGED, signer, chain, signedAt, stampChain, weakness, why);
    }

    static FileSignature notChecked(@Nullable String signer, String problem) {
        return new FileSignature(State.NOT_CHECKED, signer, List.of(), null, List.of(), "", problem);
    }
}
