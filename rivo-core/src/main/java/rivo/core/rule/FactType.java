package rivo.core.rule;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** What the value of a fact that a device reports is; rules know no others. */
public enum FactType {
    TEXT, VERSION, NUMBER, INSTANT;

    /** The type of a fact, by its name without regard to case; null when there is no such fact. */
    public static @Nullable FactType of(String name) {
        Attribute attribute = Attribute.of(null, name);
        return attribute == null || attribute.isGroup() ? null : switch (attribute.type()) {
            case TEXT -> TEXT;
            case VERSION -> VERSION;
            case NUMBER -> NUMBER;
            case INSTANT -> INSTANT;
            case DN, COLLECTION, COMPLEX -> null;
        };
    }

    /** What to say of an unknown one. */
    public static String unknown(String name) {
        String nearest = Attribute.nearest(null, name.toLowerCase(Locale.ROOT));
        return "There is no fact \"" + name + "\"" + (nearest == null || of(nearest) == null ? "; name one that rules know, or "
                + "begin it with \"x.\"." : "; did you mean \"" + nearest + "\"?");
    }
}
