package rivo.core.estate;

import java.util.Locale;

/** Whether a release may still be chosen. */
public enum ReleaseState {
    OFFERED, WITHDRAWN;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
