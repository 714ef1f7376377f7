package rivo.core.resolve;

import java.util.Locale;

/** What comes out for a unit and a title (section 9 of the resolution rules). */
public enum Outcome {
    /** It is put on. */
    REQUIRED,
    /** It is taken off. */
    UNINSTALL,
    /** Level assignments disagree: left as it is. */
    CONTESTED,
    /** No offered release has a variant that fits. */
    UNFIT;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
