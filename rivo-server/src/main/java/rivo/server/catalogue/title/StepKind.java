package rivo.server.catalogue.title;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a step does. */
public enum StepKind {
    /** Runs a command line. */
    @JsonProperty("run")
    RUN("Run"),
    /** Runs a script, whose text is the command. */
    @JsonProperty("script")
    SCRIPT("Run a script"),
    /** Copies files: {@code command} says from where, {@code to} says to where. */
    @JsonProperty("copy")
    COPY("Copy"),
    /** Has the programs closed that the command names, separated by commas: whoever is there is asked, and at last they are ended. */
    @JsonProperty("close")
    CLOSE("Close programs"),
    /** Waits until a rule holds on the device, the command. */
    @JsonProperty("wait")
    WAIT("Wait"),
    /** Goes on only where a rule holds on the device, the command. */
    @JsonProperty("check")
    CHECK("Check");

    private final String words;

    StepKind(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }

    /** Whether its command is a rule. */
    boolean asksRule() {
        return this == WAIT || this == CHECK;
    }
}
