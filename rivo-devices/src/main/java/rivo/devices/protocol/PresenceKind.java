package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;

/** By what one sees that a title is there. */
public enum PresenceKind {
    /** The name under which the device lists it as installed. */
    @JsonProperty("inventory")
    INVENTORY,
    @JsonProperty("product-code")
    PRODUCT_CODE,
    @JsonProperty("package")
    PACKAGE,
    @JsonProperty("file")
    FILE,
    @JsonProperty("registry")
    REGISTRY,
    /** A script that ends with 0 where it is there. */
    @JsonProperty("script")
    SCRIPT
}
