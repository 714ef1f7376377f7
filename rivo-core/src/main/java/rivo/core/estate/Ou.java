package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * An organisational unit of the directory.
 *
 * @param id the directory's stable id for it
 * @param name what people call it: the value of the first part of its DN
 * @param dn its distinguished name, as the directory writes it
 * @param parent the id of the OU it is in; null for the root only
 * @param fenced whether it takes nothing from outside but binding assignments; the root never is
 */
public record Ou(String id, String name, String dn, @Nullable String parent, boolean fenced) {

    public Ou {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        Objects.requireNonNull(dn);
    }

    public Ou withFence(boolean on) {
        return new Ou(id, name, dn, parent, on);
    }
}
