package rivo.server.fleet;

import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.document.Documents;
import rivo.server.estate.Snapshot;

/** The assignments whose offers stand in devices' menus: found once for as long as no assignment is another. Safe for any number of threads. */
final class OffersInMenus {

    private record Found(Documents<AssignmentDocument> of, Set<String> ids) {
    }

    private static volatile @Nullable Found latest;

    private OffersInMenus() {
    }

    /** Their ids. */
    static Set<String> of(Snapshot snapshot) {
        Documents<AssignmentDocument> all = snapshot.get(AssignmentDocument.KIND);
        Found known = latest;
        if (known == null || known.of() != all) {
            known = new Found(all, all.stream().filter(one -> one.delivery().menu()).map(AssignmentDocument::id).collect(Collectors.toUnmodifiableSet()));
            latest = known;
        }
        return known.ids();
    }
}
