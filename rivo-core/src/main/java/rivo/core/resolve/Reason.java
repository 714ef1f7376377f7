package rivo.core.resolve;

import java.util.Locale;

/** Why an outcome is what it is, where it does not say so itself (sections 5, 7 and 9). */
public enum Reason {
    ASSIGNED, REQUESTED, IMPLIED, LEFT, NO_RELEASE, NEEDS_REMOVED, NEEDS_CONTESTED, NEEDS_LATER, NEEDS_UNFIT,
    NEEDS_SEAT, NEEDS_REPLACED, NEEDS_DISPLACED, NEEDS_NEWER, NEEDS_BLOCKED, NEEDS_DEVICE;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
