package rivo.server.change;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Intent;
import rivo.core.estate.RefusedException;

/**
 * One edit of a draft: what shall be assigned of a title to an OU, in place of what is assigned there now.
 *
 * @param intent {@code none} ends what is assigned there
 * @param binding whether it crosses fences and cannot be undone below
 */
public record DraftEdit(String title, String ou,
        @Schema(allowableValues = {"required", "uninstall", "none"}) String intent, boolean binding) {

    private static final String NONE = "none";

    public DraftEdit {
        Objects.requireNonNull(title);
        Objects.requireNonNull(ou);
        parse(intent);
    }

    /** Null for {@code none}. */
    @Nullable Intent wanted() {
        return parse(intent);
    }

    private static @Nullable Intent parse(@Nullable String word) {
        if (NONE.equals(word)) {
            return null;
        }
        for (Intent intent : Intent.values()) {
            if (intent.word().equals(word) && intent != Intent.AVAILABLE) {
                return intent;
            }
        }
        throw new RefusedException("bad-intent", "intent", "The intent " + word + " is not known; use "
                + Intent.REQUIRED.name().toLowerCase(Locale.ROOT) + ", uninstall or none.");
    }

    boolean sameTarget(DraftEdit other) {
        return title.equals(other.title) && ou.equals(other.ou);
    }
}
