package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a step does. */
public enum StepKind {
    @JsonProperty("fetch")
    FETCH,
    @JsonProperty("verify")
    VERIFY,
    @JsonProperty("run")
    RUN,
    @JsonProperty("look")
    LOOK
}
