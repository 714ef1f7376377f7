package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** How a notice stands on its device. */
public enum NoticeState {
    /** It waits until somebody is there, or until the quiet hours are over. */
    @JsonProperty("held")
    HELD("held", true),
    /** Somebody has been shown it; one that asks waits for their answer. */
    @JsonProperty("shown")
    SHOWN("shown", false),
    /** It is asked again later. */
    @JsonProperty("put-off")
    PUT_OFF("put-off", true),
    /** It happens when this comes to its end. */
    @JsonProperty("counting-down")
    COUNTING_DOWN("counting-down", true),
    /** What it asked for has happened, or it has been read. */
    @JsonProperty("done")
    DONE("done", false),
    /** It has been overtaken or withdrawn: nothing comes of it. */
    @JsonProperty("over")
    OVER("over", false);

    private final String word;
    private final boolean open;

    NoticeState(String word, boolean open) {
        this.word = word;
        this.open = open;
    }

    /** As it is in JSON and in records. */
    public String word() {
        return word;
    }

    /** Whether something still comes of it. */
    public boolean isOpen(NoticeKind kind) {
        return open || this == SHOWN && kind.asks();
    }
}
