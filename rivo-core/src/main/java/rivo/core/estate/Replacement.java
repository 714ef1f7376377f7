package rivo.core.estate;

import java.util.Locale;
import java.util.Objects;

/** A release takes the place of another title. */
public record Replacement(String title, Mode mode) {

    /** Who does the work: the new title's installer, or a removal before it. */
    public enum Mode {
        REMOVE_FIRST, IN_PLACE;

        /** The word in files, records and the API. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    public Replacement {
        Objects.requireNonNull(title);
        Objects.requireNonNull(mode);
    }
}
