package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a notice is about. */
public enum NoticeKind {
    /** Something is going to be installed or removed. */
    @JsonProperty("coming")
    COMING("coming", false),
    /** It begins. */
    @JsonProperty("start")
    START("start", false),
    /** It is installed. */
    @JsonProperty("done")
    DONE("done", false),
    /** It is removed. */
    @JsonProperty("removed")
    REMOVED("removed", false),
    /** It did not work. */
    @JsonProperty("failed")
    FAILED("failed", false),
    /** The device is to be restarted. */
    @JsonProperty("restart")
    RESTART("restart", true),
    /** Whoever is signed in is to sign out. */
    @JsonProperty("sign-out")
    SIGN_OUT("sign-out", true),
    /** Programs are to be closed. */
    @JsonProperty("close")
    CLOSE("close", true);

    private final String word;
    private final boolean asks;

    NoticeKind(String word, boolean asks) {
        this.word = word;
        this.asks = asks;
    }

    /** As it is in JSON and in records. */
    public String word() {
        return word;
    }

    /** Whether it asks for an answer, and at last counts down; the others only tell. */
    public boolean asks() {
        return asks;
    }
}
