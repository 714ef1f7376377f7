package rivo.server.catalogue.trust;

import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.web.ApiException;

/** The trusted roots, and files that are used although they were changed after they were signed. */
@RestController
class TrustApi {

    /** @param until the end of its validity; absent for an OpenPGP key */
    record RootLine(String id, TrustedRoot.Kind kind, String name, @Nullable Instant until, String addedBy, Instant addedAt) {
        static RootLine of(TrustedRoot root) {
            return new RootLine(root.id(), root.kind(), root.name(), root.until(), root.addedBy(), root.addedAt());
        }
    }

    /**
     * What shall be trusted.
     *
     * @param text certificates (PEM) or an armoured OpenPGP key
     * @param bytes the same where it is no text, in base 64
     */
    record NewRoot(@Nullable String text, @Nullable String bytes) {
    }

    /** Why a changed file shall be used. */
    record Reason(@Nullable String why) {
    }

    private final Roots roots;
    private final ContentSignatures signatures;
    private final CurrentSnapshot current;

    TrustApi(Roots roots, ContentSignatures signatures, CurrentSnapshot current) {
        this.roots = roots;
        this.signatures = signatures;
        this.current = current;
    }

    @GetMapping("/api/trusted-roots")
    List<RootLine> roots() {
        return current.now().get(Roots.PART).stream().map(RootLine::of).toList();
    }

    /** Gives those that were not trusted before. */
    @PostMapping("/api/trusted-roots")
    @ResponseStatus(HttpStatus.CREATED)
    List<RootLine> add(@RequestBody NewRoot root, Principal who) {
        return roots.add(who.getName(), given(root)).stream().map(RootLine::of).toList();
    }

    private static byte[] given(NewRoot root) {
        try {
            return root.bytes() != null ? Base64.getDecoder().decode(root.bytes()) : root.text() == null ? new byte[0] : root.text().getBytes(StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            throw ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "no-certificate", "The bytes are not in base 64.");
        }
    }

    @DeleteMapping("/api/trusted-roots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable String id, Principal who) {
        roots.delete(who.getName(), id);
    }

    /** A release with this content may be offered from now on. */
    @PostMapping("/api/contents/{sha256}/use")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void use(@PathVariable String sha256, @RequestBody Reason reason, Principal who) {
        signatures.use(who.getName(), sha256, reason.why());
    }
}
