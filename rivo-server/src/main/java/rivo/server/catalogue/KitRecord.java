package rivo.server.catalogue;

import java.util.List;
import rivo.core.estate.Kit;

/**
 * Several titles that are assigned as one.
 *
 * @param titles their ids, in the order in which they are put on
 */
public record KitRecord(String id, String name, String description, List<String> titles) {

    public KitRecord {
        id = id == null ? "" : id;
        name = name == null ? "" : name.strip();
        description = description == null ? "" : description;
        titles = titles == null ? List.of() : List.copyOf(titles);
    }

    Kit kit() {
        return new Kit(id, name, titles);
    }
}
