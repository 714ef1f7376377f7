package rivo.server.catalogue.kit;

import java.util.List;
import java.util.Set;
import rivo.core.estate.Estate;
import rivo.core.estate.Kit;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;

/**
 * Several titles that are assigned as one.
 *
 * @param titles their ids, in the order in which they are put on
 */
public record KitDocument(String id, String name, String description, List<String> titles) implements Document {

    public static final DocumentKind<KitDocument> KIND = new Kind();

    public KitDocument {
        id = id == null ? "" : id;
        name = name == null ? "" : name.strip();
        description = description == null ? "" : description;
        titles = titles == null ? List.of() : List.copyOf(titles);
    }

    /** The core's value. */
    public Kit kit() {
        return new Kit(id, name, titles);
    }

    private static final class Kind extends DocumentKind<KitDocument> {

        Kind() {
            super("kit", KitDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<KitDocument> put, Set<String> retired) {
            Estate after = before;
            for (KitDocument kit : put) {
                Kits.check(kit);
                after = after.withKit(kit.kit());
            }
            for (String id : retired) {
                after = after.withoutKit(id);
            }
            return after;
        }
    }
}
