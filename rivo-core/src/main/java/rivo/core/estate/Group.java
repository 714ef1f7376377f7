package rivo.core.estate;

import java.util.List;
import java.util.Objects;

/**
 * A security group of the directory. Groups may hold each other, in a circle too: then every one of the circle holds
 * the union.
 *
 * @param name empty when the directory gives none
 * @param members what is directly in it: devices, users and groups
 */
public record Group(String id, String name, List<Target> members) {

    public Group {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        members = List.copyOf(members);
    }
}
