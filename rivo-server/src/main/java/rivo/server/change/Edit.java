package rivo.server.change;

import com.fasterxml.jackson.annotation.JsonInclude;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * One edit of a draft.
 *
 * @param id of the edit itself
 * @param kind of the document: {@code assignment}, {@code collection}, {@code fence}, {@code kit}, {@code window}, or {@code title} for
 *     {@link Act#ACCEPT}
 * @param document its id
 * @param revision that it was made from; 0 for a new document, and for acts, which are made from none
 * @param content the document as it shall be, or the licence text that was read; null for all else
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
record Edit(String id, Act act, String kind, String document, long revision, @Nullable JsonNode content) {

    /** Two edits of one key take each other's place. */
    Key key() {
        return new Key(act == Act.ACCEPT ? "licence" : kind, document);
    }

    /** What an edit is about. */
    record Key(String kind, String document) {
    }

    Edit madeFrom(long newRevision) {
        return new Edit(id, act, kind, document, newRevision, content);
    }

    Edit dropped() {
        return new Edit(id, Act.DROP, act == Act.ACCEPT ? "licence" : kind, document, revision, null);
    }
}
