package rivo.core.rehearse;

import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;

/** What a change comes to for one unit and title: the groups in which a rehearsal is read. */
public enum Effect {
    /** Put on now, and not before. */
    GAINS,
    /** Put on before; nobody asks for it any more, or it is only offered. */
    LOSES,
    /** Taken off now, and not before. */
    REMOVED,
    /** Offered now, and neither put on nor offered before. */
    OFFERED,
    /** Offered before, and nothing now. */
    WITHDRAWN,
    CONTESTED, LATER, UNFIT, BLOCKED, REPLACED, DISPLACED, WAITING,
    /** It had an outcome that left it as it is, and has none now. */
    SETTLED,
    /** The same outcome with another release or variant. */
    OTHER_RELEASE,
    /** The same outcome for another reason. */
    OTHER_REASON;

    /** The word in files and the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** What going from one decision to the other comes to; at least one is there, and they differ. */
    static Effect of(@Nullable Decision before, @Nullable Decision after) {
        Outcome was = before == null ? null : before.outcome();
        Outcome is = after == null ? null : after.outcome();
        if (before != null && after != null && was == is) {
            return java.util.Objects.equals(before.choice(), after.choice()) ? OTHER_REASON : OTHER_RELEASE;
        }
        if (is == null) {
            return was == Outcome.REQUIRED ? LOSES : was == Outcome.AVAILABLE ? WITHDRAWN : SETTLED;
        }
        return switch (is) {
            case REQUIRED -> GAINS;
            case AVAILABLE -> was == Outcome.REQUIRED ? LOSES : OFFERED;
            case UNINSTALL -> REMOVED;
            case CONTESTED -> CONTESTED;
            case LATER -> LATER;
            case UNFIT -> UNFIT;
            case BLOCKED -> BLOCKED;
            case REPLACED -> REPLACED;
            case DISPLACED -> DISPLACED;
            case WAITING -> WAITING;
        };
    }
}
