package rivo.server.catalogue.title;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.trust.ContentSignatures;
import rivo.server.catalogue.trust.KeptSignature;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** Files that were changed after they were signed: nobody gets one unless somebody has said why. Pure functions. */
final class ChangedFiles {

    private ChangedFiles() {
    }

    /**
     * That nothing gets offered with such a file.
     *
     * @param before the title as it is; null for a new one
     * @throws ApiException where a release would be that was not
     */
    static void check(Snapshot now, @Nullable TitleRecord before, TitleRecord after) {
        Map<String, KeptSignature> known = now.get(ContentSignatures.PART);
        List<String> were = before == null ? List.of() : before.releases().stream().filter(ReleaseRecord::offered).flatMap(release -> contents(release).stream())
                .map(Content::sha256).toList();
        for (ReleaseRecord release : after.releases()) {
            for (Content content : release.offered() ? contents(release) : List.<Content>of()) {
                KeptSignature signature = known.get(content.sha256());
                if (signature != null && signature.isRefused() && !were.contains(content.sha256())) {
                    throw ApiException.conflict("changed-file", content.fileName() + " was changed after it was signed, so " + release.version()
                            + " is not offered. Fetch the file anew, or say on the title's page why it shall be used.");
                }
            }
        }
    }

    private static List<Content> contents(ReleaseRecord release) {
        return release.variants().stream().flatMap(variant -> variant.contents().stream()).toList();
    }
}
