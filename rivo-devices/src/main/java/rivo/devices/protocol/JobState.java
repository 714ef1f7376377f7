package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** How a job stands. {@code WAITING} is neither done nor failed: the message says what it waits for. */
public enum JobState {
    @JsonProperty("running")
    RUNNING,
    @JsonProperty("waiting")
    WAITING,
    @JsonProperty("done")
    DONE,
    @JsonProperty("failed")
    FAILED
}
