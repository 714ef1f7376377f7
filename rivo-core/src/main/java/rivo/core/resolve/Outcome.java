package rivo.core.resolve;

import java.util.Locale;

/** What comes out for a unit and a title (section 9 of the resolution rules). */
public enum Outcome {
    /** It is put on. */
    REQUIRED,
    /** A person may take it. */
    AVAILABLE,
    /** It is taken off. */
    UNINSTALL,
    /** Level assignments disagree: left as it is. */
    CONTESTED,
    /** Its wave is not open yet. */
    LATER,
    /** No variant fits the device. */
    UNFIT,
    /** A need is not met, or the pinned release is not there. */
    BLOCKED,
    /** Another title takes its place; taken off if present. */
    REPLACED,
    /** A stronger title stands against it. */
    DISPLACED,
    /** The licence pool is used up: left as it is. */
    WAITING;

    /** The word in files, records and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether a release and variant are chosen with it. */
    public boolean hasRelease() {
        return this == REQUIRED || this == AVAILABLE || this == WAITING;
    }

    /** Whether what is present stays where it is (section 7, the need of a device title). */
    public boolean leavesAsItIs() {
        return switch (this) {
            case AVAILABLE, CONTESTED, LATER, UNFIT, BLOCKED, WAITING -> true;
            case REQUIRED, UNINSTALL, REPLACED, DISPLACED -> false;
        };
    }
}
