package rivo.server;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.pcollections.HashTreePMap;
import rivo.core.estate.Estate;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.document.Document;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;

/** A snapshot with the documents of an estate, for tests that need no server. It has no catalogue. */
public final class SmallSnapshot {

    private SmallSnapshot() {
    }

    /** @param choices what each assignment fixes, by its id */
    public static Snapshot of(Estate estate, Map<String, Map<String, String>> choices) {
        Map<SnapshotPart<?>, Object> parts = new HashMap<>();
        SnapshotRecords.PARTS.forEach(part -> parts.put(part, HashTreePMap.empty()));
        SnapshotRecords.PARTS.stream().filter(part -> part instanceof rivo.server.document.DocumentKind)
                .forEach(kind -> parts.put(kind, Documents.of(List.of())));
        parts.put(AssignmentDocument.KIND, documents(estate.assignments().all().stream().map(a -> AssignmentDocument.of(a,
                Delivery.AS_USUAL.withChoices(choices.getOrDefault(a.id(), Map.of())))).toList()));
        parts.put(KitDocument.KIND, documents(estate.kits().values().stream().map(k -> new KitDocument(k.id(), k.name(), "", k.titles()))
                .toList()));
        parts.put(FixedChoices.PART, Map.of());
        return Snapshot.of(estate, parts);
    }

    private static <D extends Document> Documents<D> documents(List<D> all) {
        return Documents.of(all.stream().map(one -> new Kept<>(one, 1, "test", Instant.EPOCH, 1L)).toList());
    }
}
