package rivo.core.estate;

import java.util.Locale;

/** Whether a title is installed for the whole device or into each person's profile. */
public enum Scope {
    DEVICE, USER;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
