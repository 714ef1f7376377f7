package rivo.core.estate;

import java.util.Locale;

/** What an assignment asks for; the stronger of two level installing ones first. */
public enum Intent {
    REQUIRED, AVAILABLE, UNINSTALL;

    public boolean installs() {
        return this != UNINSTALL;
    }

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
