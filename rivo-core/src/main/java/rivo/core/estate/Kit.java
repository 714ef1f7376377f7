package rivo.core.estate;

import java.util.List;
import java.util.Objects;

/**
 * Titles that are assigned together.
 *
 * @param titles the ids of its titles, in the order in which they are put on
 */
public record Kit(String id, String name, List<String> titles) {

    public Kit {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        titles = List.copyOf(titles);
    }
}
