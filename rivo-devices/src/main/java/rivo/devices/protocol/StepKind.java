package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a step does. */
public enum StepKind {
    /** Fetches the job's contents. */
    @JsonProperty("fetch")
    FETCH,
    /** Compares their SHA-256 with what was told. */
    @JsonProperty("verify")
    VERIFY,
    /** Runs a command line. */
    @JsonProperty("run")
    RUN,
    /** Runs a script, whose text is the command. */
    @JsonProperty("script")
    SCRIPT,
    /** Copies from the command's place to another. */
    @JsonProperty("copy")
    COPY,
    /** Has the programs closed that the command names, separated by commas. */
    @JsonProperty("close")
    CLOSE,
    /** Waits for a condition, which the server has looked at. */
    @JsonProperty("wait")
    WAIT,
    /** Goes on only under a condition, which the server has looked at. */
    @JsonProperty("check")
    CHECK,
    /** Looks whether the title is there, or gone. */
    @JsonProperty("look")
    LOOK
}
