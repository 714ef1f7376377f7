package rivo.core.state;

/** When a device was last heard of. */
public enum Contact {
    /** It has never called in. */
    NEVER,
    /** It calls in as it said it would. */
    LATELY,
    /** It has not, for more than a day. */
    AWAY
}
