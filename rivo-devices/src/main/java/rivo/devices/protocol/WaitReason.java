package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a job waits for, or, of one that has failed, before it is tried again. */
public enum WaitReason {
    /** A maintenance window that is open long enough. */
    @JsonProperty("window")
    WINDOW,
    /** The deadline, from when on windows do not count. */
    @JsonProperty("deadline")
    DEADLINE,
    /** Another title that has to be there first. */
    @JsonProperty("need")
    NEED,
    /** What somebody at the device says to a question. */
    @JsonProperty("answer")
    ANSWER,
    /** The next sign-in of the person whose job it is. */
    @JsonProperty("sign-in")
    SIGN_IN,
    /** Content that neither a mirror nor the server gives. */
    @JsonProperty("content")
    CONTENT,
    /** The time of the next try. */
    @JsonProperty("try")
    TRY,
    /** A restart; all else is done. */
    @JsonProperty("restart")
    RESTART,
    /** Somebody's signing out; all else is done. */
    @JsonProperty("sign-out")
    SIGN_OUT
}
