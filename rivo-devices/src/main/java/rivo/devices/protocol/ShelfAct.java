package rivo.devices.protocol;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What somebody who is signed in on a device does on their shelf, where the device's agent shows it itself.
 *
 * @param account theirs
 * @param title of an offer, or for {@code sooner} of what is coming
 * @param why they need it, where it has to be agreed to; null for nothing
 * @param licence the SHA-256 of the licence text that they accept; null for none
 * @param choices what they choose of it, by the choices' ids; null for nothing
 */
public record ShelfAct(@Nullable String account, @Nullable Action action, @Nullable String title, @Nullable String why, @Nullable String licence,
        @Nullable Map<String, String> choices) {

    /** One without more to it. */
    public static ShelfAct of(String account, Action action, String title) {
        return new ShelfAct(account, action, title, null, null, null);
    }

    /** What is done. */
    public enum Action {
        /** It is taken, or asked for. */
        @JsonProperty("take")
        TAKE,
        /** It is given back, or not wanted any more. */
        @JsonProperty("give-back")
        GIVE_BACK,
        /** It shall come at once. */
        @JsonProperty("sooner")
        SOONER
    }
}
