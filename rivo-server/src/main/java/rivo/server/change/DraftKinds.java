package rivo.server.change;

import java.util.List;
import rivo.core.estate.RefusedException;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.FenceDocument;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.document.DocumentKind;
import rivo.server.window.WindowDocument;

/** The kinds of documents that can be drafted. */
final class DraftKinds {

    /** Those that are named by others first. */
    static final List<DocumentKind<?>> IN_ORDER = List.of(CollectionDocument.KIND, KitDocument.KIND, FenceDocument.KIND,
            WindowDocument.KIND, AssignmentDocument.KIND);

    private DraftKinds() {
    }

    /** @throws RefusedException when there is no such kind */
    static DocumentKind<?> of(String word) {
        return IN_ORDER.stream().filter(kind -> kind.word().equals(word)).findFirst().orElseThrow(() -> new RefusedException(
                "unknown-kind", "kind", "There are no documents of the kind " + word + "; use "
                        + String.join(", ", IN_ORDER.stream().map(DocumentKind::word).toList()) + "."));
    }
}
