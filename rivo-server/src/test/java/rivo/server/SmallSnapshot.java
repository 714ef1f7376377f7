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
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Document;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;

/** A snapshot with the documents of an estate, for tests that need no server. Its catalogue holds Siltscope Lab. */
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
        parts.put(Titles.PART, Titles.of(List.of(siltscope())));
        return Snapshot.of(estate, parts);
    }

    /** Seen in the device's list of software. */
    private static TitleRecord siltscope() {
        VariantRecord all = new VariantRecord("all", null, false, List.of(), List.of(Step.run("Put it on", "setup", List.of())),
                List.of(Step.run("Take it off", "remove", List.of())), List.of(), Presence.inventory("Siltscope Lab"));
        return TitleRecord.of("siltscope", "Siltscope Lab", "Fenwick Instruments", List.of(TitleRecord.ReleaseRecord.of("4.2.0", List.of(all))));
    }

    private static <D extends Document> Documents<D> documents(List<D> all) {
        return Documents.of(all.stream().map(one -> new Kept<>(one, 1, "test", Instant.EPOCH, 1L)).toList());
    }
}
