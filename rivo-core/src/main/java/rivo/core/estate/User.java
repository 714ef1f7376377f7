package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A person of the directory.
 *
 * @param id the directory's stable id
 * @param name the account name; empty when there is none
 * @param fullName what people call them
 * @param ou the id of their OU; null when outside every OU, which is below the root only
 * @param facts what the directory says of them, such as {@code department}
 */
public record User(String id, String name, String fullName, @Nullable String ou, Facts facts) {

    public User {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        Objects.requireNonNull(fullName);
        Objects.requireNonNull(facts);
    }
}
