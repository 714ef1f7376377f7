package rivo.core.rule;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** The operators that compare; {@code pr} stands apart, since it takes no value. */
enum Operator {
    EQ, NE, CO, SW, EW, GT, GE, LT, LE;

    /** Null when the word is none. */
    static @Nullable Operator of(String word) {
        for (Operator operator : values()) {
            if (operator.name().equalsIgnoreCase(word)) {
                return operator;
            }
        }
        return null;
    }

    String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    boolean looksInside() {
        return this == CO || this == SW || this == EW;
    }

    boolean orders() {
        return this == GT || this == GE || this == LT || this == LE;
    }

    /** Whether a comparison that came out so satisfies this one; not asked of those that look inside. */
    boolean accepts(int comparison) {
        return switch (this) {
            case EQ -> comparison == 0;
            case NE -> comparison != 0;
            case GT -> comparison > 0;
            case GE -> comparison >= 0;
            case LT -> comparison < 0;
            case LE -> comparison <= 0;
            case CO, SW, EW -> throw new IllegalStateException(word() + " does not order");
        };
    }
}
