package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What somebody says to a notice. */
public enum NoticeAnswer {
    /** It may happen now. */
    @JsonProperty("now")
    NOW("now"),
    /** It is to be asked again later. */
    @JsonProperty("later")
    LATER("later"),
    /** It is to happen when they sign out. */
    @JsonProperty("at-sign-out")
    AT_SIGN_OUT("at-sign-out"),
    /** They have read it. */
    @JsonProperty("read")
    READ("read");

    private final String word;

    NoticeAnswer(String word) {
        this.word = word;
    }

    /** As it is in JSON and in records. */
    public String word() {
        return word;
    }

    /** Whether it is put off by that. */
    public boolean putsOff() {
        return this == LATER || this == AT_SIGN_OUT;
    }
}
