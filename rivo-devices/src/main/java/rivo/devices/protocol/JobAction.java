package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a job does. */
public enum JobAction {
    @JsonProperty("install")
    INSTALL,
    @JsonProperty("remove")
    REMOVE
}
