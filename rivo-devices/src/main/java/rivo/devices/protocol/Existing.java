package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** What a copy does with a file that stands there already. */
public enum Existing {
    @JsonProperty("keep-newer")
    KEEP_NEWER,
    @JsonProperty("keep")
    KEEP,
    @JsonProperty("overwrite")
    OVERWRITE
}
