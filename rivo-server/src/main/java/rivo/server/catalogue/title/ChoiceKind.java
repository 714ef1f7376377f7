package rivo.server.catalogue.title;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What is chosen. */
public enum ChoiceKind {
    /** Any of its parts. */
    @JsonProperty("parts")
    PARTS,
    /** Any of its languages. */
    @JsonProperty("languages")
    LANGUAGES,
    /** One of the channels by which it is kept up to date. */
    @JsonProperty("channel")
    CHANNEL,
    /** On or off. */
    @JsonProperty("switch")
    SWITCH,
    /** Words. */
    @JsonProperty("text")
    TEXT,
    /** A whole number. */
    @JsonProperty("number")
    NUMBER;

    /** Whether people may choose for themselves on the shelf: among what is listed, or on and off. */
    public boolean isForPeople() {
        return isListed() || this == SWITCH;
    }

    /** Whether any number of values may be chosen together. */
    public boolean isMany() {
        return this == PARTS || this == LANGUAGES;
    }

    /** Whether what may be chosen is a list of values. */
    boolean isListed() {
        return isMany() || this == CHANNEL;
    }
}
