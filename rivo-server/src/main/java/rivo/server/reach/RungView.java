package rivo.server.reach;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One line of a trail.
 *
 * @param target whom it names, such as {@code ou:ID}
 * @param targetName the same as people know it
 * @param kit the name of the kit by which it is assigned; absent where the title itself is
 * @param sentence what became of it here, in words
 * @param devices how many devices, or of a title for each person how many people on devices, it decides for in the part that is looked at; absent for a single device
 * @param change the number of the change that made it; absent while it is in the draft
 * @param draft absent when the draft does not touch it
 */
public record RungView(String assignment, @Schema(allowableValues = {"required", "available", "uninstall"}) String intent,
        String target, String targetName, @Nullable String kit, boolean binding,
        @Schema(allowableValues = {"decides", "disagrees", "agrees", "weaker", "later", "stopped",
            "excluded", "narrowed-out", "outside-base", "rests", "no-reach", "ended", "inside"}) String verdict,
        String sentence, @Nullable Integer devices, @Nullable Long change, @Nullable Instant since,
        @Schema(allowableValues = {"added", "ended"}) @Nullable String draft) {
}
