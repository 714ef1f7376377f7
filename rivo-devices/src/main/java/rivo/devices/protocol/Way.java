package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** How a restart or a sign-out comes about. (Section 4 of the delivery rules.) */
public enum Way {
    /** Nobody is asked: it waits until somebody does it for other reasons. */
    @JsonProperty("none")
    NONE,
    /** Whoever is signed in is asked, and may put it off as allowed; then it counts down. With nobody there, at once. */
    @JsonProperty("ask")
    ASK,
    /** Like {@link #ASK}, and by itself in the next maintenance window that finds nobody there. */
    @JsonProperty("night")
    NIGHT,
    /** It counts down at once. */
    @JsonProperty("now")
    NOW,
    /** The next that happens anyway. */
    @JsonProperty("wait")
    WAIT;

    /** Whether anybody is asked, or told that it counts down. */
    public boolean speaks() {
        return this == ASK || this == NIGHT || this == NOW;
    }
}
