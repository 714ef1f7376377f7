package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What an exit code means; one that a step does not list means failed. */
public enum ExitMeaning {
    @JsonProperty("done")
    DONE,
    @JsonProperty("restart")
    RESTART,
    @JsonProperty("sign-out")
    SIGN_OUT,
    @JsonProperty("again")
    AGAIN,
    @JsonProperty("failed")
    FAILED
}
