package rivo.server.catalogue;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/**
 * A title with everything the catalogue keeps of it.
 *
 * @param inventoryName the name under which devices list it as installed, by which they see that it is there
 */
public record TitleRecord(String id, String name, String maker, String inventoryName, List<ReleaseRecord> releases) {

    public TitleRecord {
        Objects.requireNonNull(id);
        releases = List.copyOf(releases);
    }

    /** One version. */
    public record ReleaseRecord(String version, ReleaseState state, List<VariantRecord> variants) {
        public ReleaseRecord {
            variants = List.copyOf(variants);
        }
    }

    /**
     * One way to put a release on and to take it off.
     *
     * @param content null when commands are enough
     * @param limitSeconds the longest that a command may take
     */
    public record VariantRecord(String id, Contents.@Nullable Content content, String installCommand,
            String removeCommand, int limitSeconds) {
    }

    /** What the core needs to know of it. */
    public Title title() {
        return Title.of(id, name, releases.stream().map(r -> new Release(Version.of(r.version()), r.state(), List.of(),
                List.of(), r.variants().stream().map(v -> new Variant(v.id(), null)).toList())).toList());
    }
}
