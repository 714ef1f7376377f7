package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A person of the directory.
 *
 * @param id the directory's stable id
 * @param name the account name
 * @param fullName what people call them
 * @param ou the id of their OU; null when outside every OU
 */
public record User(String id, String name, String fullName, @Nullable String ou) {

    public User {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        Objects.requireNonNull(fullName);
    }
}
