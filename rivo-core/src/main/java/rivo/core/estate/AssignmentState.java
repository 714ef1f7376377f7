package rivo.core.estate;

import java.util.Locale;

/** Whether an assignment has a say. A retired one stays for what it left behind. */
public enum AssignmentState {
    ACTIVE, PAUSED, RETIRED;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
