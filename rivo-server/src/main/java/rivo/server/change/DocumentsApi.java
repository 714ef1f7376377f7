package rivo.server.change;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.FenceDocument;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.document.Kept;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.web.ApiException;
import rivo.server.web.Page;

/** The published documents with their revisions, from which edits are made. */
@RestController
@RequestMapping("/api")
class DocumentsApi {

    private static final int MOST = 1000;

    /** @param total how many there are in all; the list holds the asked part of them, the oldest first */
    record DocumentPage<D>(int total, List<Kept<D>> documents) {
    }

    private final CurrentSnapshot current;

    DocumentsApi(CurrentSnapshot current) {
        this.current = current;
    }

    @GetMapping("/assignments")
    DocumentPage<AssignmentDocument> assignments(@RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "200") int limit) {
        return page(AssignmentDocument.KIND, offset, limit);
    }

    @GetMapping("/assignments/{id}")
    Kept<AssignmentDocument> assignment(@PathVariable String id) {
        return one(AssignmentDocument.KIND, id);
    }

    @GetMapping("/collections")
    DocumentPage<CollectionDocument> collections(@RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "200") int limit) {
        return page(CollectionDocument.KIND, offset, limit);
    }

    @GetMapping("/collections/{id}")
    Kept<CollectionDocument> collection(@PathVariable String id) {
        return one(CollectionDocument.KIND, id);
    }

    @GetMapping("/fences")
    DocumentPage<FenceDocument> fences(@RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "200") int limit) {
        return page(FenceDocument.KIND, offset, limit);
    }

    private <D extends Document> DocumentPage<D> page(DocumentKind<D> kind, int offset, int limit) {
        Page page = Page.of(offset, limit, MOST);
        var documents = current.now().get(kind);
        return new DocumentPage<>(documents.size(), page.of(List.copyOf(documents.kept())));
    }

    private <D extends Document> Kept<D> one(DocumentKind<D> kind, String id) {
        Kept<D> kept = current.now().get(kind).kept(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-" + kind.word(), "There is no " + kind.word() + " " + id + "; look at the list.");
        }
        return kept;
    }
}
