package rivo.core.estate;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A piece of software that can be assigned.
 *
 * @param releases from the highest version down, whatever order they came in
 */
public record Title(String id, String name, List<Release> releases) {

    public Title {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        releases = releases.stream().sorted(Comparator.comparing(Release::version).reversed()).toList();
    }

    /** The highest release in state {@code offered} that has a variant, or null. */
    public @Nullable Release newest() {
        for (Release release : releases) {
            if (release.state() == ReleaseState.OFFERED && !release.variants().isEmpty()) {
                return release;
            }
        }
        return null;
    }
}
