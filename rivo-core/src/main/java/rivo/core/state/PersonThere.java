package rivo.core.state;

/** Whether a unit's person is at its device. */
public enum PersonThere {
    /** It is a unit of the device, and of nobody. */
    NOBODY,
    SIGNED_IN,
    AWAY,
    /** The device does not tell who signs in: it does nothing for people. */
    NOT_TOLD
}
