package rivo.core.estate;

import java.util.Locale;

/** Whether an assignment stays with the machine or goes where the person goes. */
public enum Follows {
    DEVICE, USER;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
