package rivo.core.state;

import java.util.Locale;

/** What states are counted as together. What waits or is held is never counted as failed, nor as in place. */
public enum StateGroup {
    IN_PLACE, GONE, UNDER_WAY, WAITING, FAILED, HELD, OFFERED, NOTHING;

    /** As it is written in the API. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
