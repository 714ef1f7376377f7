package rivo.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Objects;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import rivo.formats.installer.InstallerReader;
import rivo.formats.installer.UnreadableInstallerException;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.trust.ContentSignatures;
import rivo.server.catalogue.trust.Roots;
import rivo.server.estate.CurrentSnapshot;

/** The authority that the made-up makers' certificates were issued by, and what the demo's own files say of their signatures. */
@Component
@Profile("demo")
class DemoTrust {

    private static final String ROOT = "/demo/fernhill-signing-authority.pem";

    private final Roots roots;
    private final ContentSignatures signatures;
    private final Contents contents;
    private final Catalogue catalogue;
    private final CurrentSnapshot current;

    DemoTrust(Roots roots, ContentSignatures signatures, Contents contents, Catalogue catalogue, CurrentSnapshot current) {
        this.roots = roots;
        this.signatures = signatures;
        this.contents = contents;
        this.catalogue = catalogue;
        this.current = current;
    }

    /** Does what an earlier start has not done yet. */
    void fill(String who) {
        if (current.now().get(ContentSignatures.PART).isEmpty()) {
            try (InputStream root = DemoTrust.class.getResourceAsStream(ROOT)) {
                roots.add(who, Objects.requireNonNull(root, "the demo's root is a part of the application").readAllBytes());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        catalogue.now().all().stream().flatMap(title -> title.releases().stream()).flatMap(release -> release.variants().stream())
                .flatMap(variant -> variant.contents().stream()).filter(content -> !current.now().get(ContentSignatures.PART).containsKey(content.sha256()))
                .forEach(this::read);
    }

    private void read(Content content) {
        try {
            signatures.keep(content.sha256(), InstallerReader.read(contents.file(content.sha256()), content.fileName()).signature());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (UnreadableInstallerException e) {
            throw new IllegalStateException("the demo's own files can be read", e);
        }
    }
}
