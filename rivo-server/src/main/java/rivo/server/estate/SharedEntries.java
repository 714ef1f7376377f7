package rivo.server.estate;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Comparator;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Version;

/**
 * What many devices report alike, as one object for all of them: most of a large estate's memory otherwise. What no device has any more is
 * forgotten. Safe for any number of threads.
 */
public final class SharedEntries {

    private static final Cache<Texts, Installed> INSTALLED = Caffeine.newBuilder().weakValues().build();
    private static final Cache<Texts, Present> PRESENT = Caffeine.newBuilder().weakValues().build();
    private static final Comparator<@Nullable String> TEXT = Comparator.nullsFirst(Comparator.naturalOrder());

    /**
     * What an entry says, as it was written: versions that compare equal may be written differently. It has an order so that a device which makes
     * up thousands with the same hash is not looked up any slower.
     */
    private record Texts(@Nullable String first, @Nullable String second, @Nullable String third) implements Comparable<Texts> {

        @Override
        public int compareTo(Texts other) {
            int order = TEXT.compare(first, other.first);
            order = order != 0 ? order : TEXT.compare(second, other.second);
            return order != 0 ? order : TEXT.compare(third, other.third);
        }
    }

    private SharedEntries() {
    }

    public static Installed installed(@Nullable String name, @Nullable String publisher, @Nullable String version) {
        return Objects.requireNonNull(INSTALLED.get(new Texts(name, publisher, version), texts -> new Installed(name, publisher, version)));
    }

    /** What somebody has in their own profile is shared with nobody. */
    public static Present present(String title, @Nullable String version, @Nullable String user, @Nullable String by) {
        return user != null ? of(title, version, user, by)
                : Objects.requireNonNull(PRESENT.get(new Texts(title, version, by), texts -> of(title, version, null, by)));
    }

    private static Present of(String title, @Nullable String version, @Nullable String user, @Nullable String by) {
        return new Present(title, version == null ? null : Version.of(version), user, by);
    }
}
