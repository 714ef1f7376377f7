package rivo.core.estate;

import java.util.Locale;

/** What an assignment asks for. */
public enum Intent {
    REQUIRED, UNINSTALL;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
