package rivo.server.catalogue.trust;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A root that signatures are trusted by, or an OpenPGP key.
 *
 * @param id its SHA-256
 * @param name whom it names
 * @param content in base 64: the certificate (X.509, DER), or the key as it was given
 * @param until the end of its validity; null for one without
 */
public record TrustedRoot(String id, Kind kind, String name, String content, @Nullable Instant until, String addedBy, Instant addedAt) {

    /** What it is. */
    public enum Kind {
        /** A certificate, above those of signers. */
        @JsonProperty("certificate")
        CERTIFICATE,
        /** An OpenPGP key, by which packages are signed. */
        @JsonProperty("openpgp-key")
        OPENPGP_KEY
    }
}
