package rivo.core.state;

/** What keeps a device from beginning a job that it has not spoken of. */
public enum Opening {
    /** Nothing. */
    OPEN,
    /** None of its windows is open, and the next one comes before any deadline that counts more. */
    AT_WINDOW,
    /** None of its windows is open, and the deadline from when on they do not count comes first. */
    AT_DEADLINE
}
