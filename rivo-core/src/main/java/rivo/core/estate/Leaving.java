package rivo.core.estate;

import java.util.Locale;

/** What becomes of a title that an assignment put on, once it no longer reaches there. */
public enum Leaving {
    KEEP, REMOVE;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
