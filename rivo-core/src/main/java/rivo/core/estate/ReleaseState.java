package rivo.core.estate;

/** Whether a release may still be chosen. */
public enum ReleaseState {
    OFFERED, WITHDRAWN
}
