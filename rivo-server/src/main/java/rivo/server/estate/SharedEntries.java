package rivo.server.estate;

import com.github.benmanes.caffeine.cache.Interner;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;

/**
 * What many devices report alike, as one object for all of them: most of a large estate's memory otherwise. What no device has any more is
 * forgotten. Safe for any number of threads.
 */
public final class SharedEntries {

    private static final Interner<Installed> INSTALLED = Interner.newWeakInterner();
    private static final Interner<Present> PRESENT = Interner.newWeakInterner();

    private SharedEntries() {
    }

    public static Installed one(Installed entry) {
        return INSTALLED.intern(entry);
    }

    public static Present one(Present entry) {
        return PRESENT.intern(entry);
    }
}
