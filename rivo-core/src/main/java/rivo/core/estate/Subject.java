package rivo.core.estate;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What an assignment is about: a title, or a kit, for every title of which it speaks.
 *
 * @param kit whether the id is a kit's
 */
public record Subject(boolean kit, String id) {

    private static final String TITLE = "title:";
    private static final String KIT = "kit:";

    public Subject {
        Objects.requireNonNull(id);
    }

    public static Subject title(String id) {
        return new Subject(false, id);
    }

    public static Subject kit(String id) {
        return new Subject(true, id);
    }

    /** The subject that is written so, or null when it is none. */
    public static @Nullable Subject parse(String written) {
        if (written.startsWith(TITLE) && written.length() > TITLE.length()) {
            return title(written.substring(TITLE.length()));
        }
        if (written.startsWith(KIT) && written.length() > KIT.length()) {
            return kit(written.substring(KIT.length()));
        }
        return null;
    }

    /** As it is written: {@code title:siltscope}, {@code kit:k1}. */
    @Override
    public String toString() {
        return (kit ? KIT : TITLE) + id;
    }
}
