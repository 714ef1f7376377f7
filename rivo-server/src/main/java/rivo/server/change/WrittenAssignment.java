package rivo.server.change;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.RefusedException;
import rivo.server.assignment.AssignmentDocument;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * An assignment as it is written, while nothing of it is in the draft.
 *
 * @param revision that it was made from; 0 for a new one
 * @param also further titles and kits that are assigned alike, {@code title:ID} or {@code kit:ID}
 */
public record WrittenAssignment(String id, long revision, JsonNode document, @Nullable List<String> also) {

    private static final int MOST_ALSO = 50;

    /** Each as an edit: those of further titles have the id with a number after it, and no release or choices of the first. */
    List<Edit> edits() {
        List<Edit> edits = new ArrayList<>(List.of(Drafts.putting(AssignmentDocument.KIND, id, revision, document)));
        if (also != null && also.size() > MOST_ALSO) {
            throw new RefusedException("too-many", "also", "At most " + MOST_ALSO + " further titles are assigned together; make a kit of them.");
        }
        for (String subject : also == null ? List.<String>of() : also) {
            ObjectNode copy = ((ObjectNode) document.deepCopy());
            String own = id + "-" + (edits.size() + 1);
            copy.put("id", own).put("subject", subject).remove(List.of("release", "choices"));
            edits.add(Drafts.putting(AssignmentDocument.KIND, own, 0, copy));
        }
        return edits;
    }
}
