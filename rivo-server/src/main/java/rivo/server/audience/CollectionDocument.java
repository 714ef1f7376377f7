package rivo.server.audience;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.server.document.CheckedRules;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;

/**
 * A dynamic set of devices, in the estate file's form.
 *
 * @param base the id of the OU below which it looks; null for the root
 * @param rule null for a collection of hand-picked devices only
 * @param include ids of devices
 * @param exclude ids of devices; they win over everything
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record CollectionDocument(String id, String name, @Nullable String base, @Nullable String rule, List<String> include,
        List<String> exclude) implements Document {

    public static final DocumentKind<CollectionDocument> KIND = new Kind();

    public CollectionDocument {
        id = id == null ? "" : id;
        name = name == null ? "" : name.strip();
        rule = rule == null || rule.isBlank() ? null : rule;
        include = include == null ? List.of() : List.copyOf(include);
        exclude = exclude == null ? List.of() : List.copyOf(exclude);
    }

    public static CollectionDocument of(DeviceCollection collection) {
        return new CollectionDocument(collection.id(), collection.name(), collection.base(), collection.rule(), collection.include(),
                collection.exclude());
    }

    /** The core's value. */
    public DeviceCollection collection() {
        return new DeviceCollection(id, name, base, rule, include, exclude);
    }

    private static final int LONGEST_NAME = 200;

    private static final class Kind extends DocumentKind<CollectionDocument> {

        Kind() {
            super("collection", CollectionDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<CollectionDocument> put, Set<String> retired) {
            for (CollectionDocument collection : put) {
                if (collection.name().length() > LONGEST_NAME) {
                    throw new RefusedException("bad-text", "collection:" + collection.id() + ".name", "A collection has a name of at most "
                            + LONGEST_NAME + " characters; shorten it.");
                }
            }
            Estate after = before.withCollections(put.stream().map(CollectionDocument::collection).toList(), retired);
            CheckedRules.ofAll(after);
            return after;
        }
    }
}
