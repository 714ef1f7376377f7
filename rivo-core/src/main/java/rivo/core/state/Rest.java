package rivo.core.state;

/** How what follows an installation on the device, for each person, stands. */
public enum Rest {
    /** Nothing is left to do. */
    NONE,
    /** For somebody it comes at their next sign-in. */
    AHEAD,
    /** For somebody it failed. */
    FAILED
}
