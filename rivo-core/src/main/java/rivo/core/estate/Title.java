package rivo.core.estate;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A piece of software that can be assigned.
 *
 * @param seats how many units the licence serves, 0 or more; null when it is not counted
 * @param conflictsWith the ids of the titles that it cannot stand beside, whichever side says so
 * @param releases in any order
 */
public record Title(String id, String name, Scope scope, @Nullable Integer seats, List<String> conflictsWith,
        List<Release> releases) {

    public Title {
        Objects.requireNonNull(id);
        Objects.requireNonNull(name);
        Objects.requireNonNull(scope);
        conflictsWith = List.copyOf(conflictsWith);
        releases = List.copyOf(releases);
        if (seats != null && seats < 0) {
            throw new RefusedException("bad-seats", "title:" + id, "The seats are 0 or more, not " + seats + ".");
        }
    }

    /** A title of scope device without seats and conflicts. */
    public static Title of(String id, String name, List<Release> releases) {
        return new Title(id, name, Scope.DEVICE, null, List.of(), releases);
    }

    /** The releases from the highest version down. Costs a sort. */
    public List<Release> newestFirst() {
        return releases.stream().sorted(Comparator.comparing(Release::version).reversed()).toList();
    }

    /** The highest release in state {@code offered} that has a variant, whether or not it fits somewhere; or null. */
    public @Nullable Release newest() {
        for (Release release : newestFirst()) {
            if (release.isOffered() && !release.variants().isEmpty()) {
                return release;
            }
        }
        return null;
    }
}
