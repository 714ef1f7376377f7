package rivo.core.estate;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A dynamic set of devices below a base OU: those hand-picked or satisfying the rule, less those hand-left-out.
 *
 * @param base the id of the OU below which it looks; null for the root
 * @param rule in the rule language; null for a collection of hand-picked devices only
 * @param include ids of devices
 * @param exclude ids of devices; they win over everything
 */
public record DeviceCollection(String id, String name, @Nullable String base, @Nullable String rule, List<String> include,
        List<String> exclude) {

    public DeviceCollection {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        include = List.copyOf(include);
        exclude = List.copyOf(exclude);
    }
}
