package rivo.core.resolve;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Release;

/**
 * The outcome for a title, with what decided it. The same decision usually stands for many devices.
 *
 * @param deciding the winner; for {@link Outcome#CONTESTED} all the level assignments, by id
 * @param release the chosen release, for {@link Outcome#REQUIRED} only
 */
public record Decision(Outcome outcome, List<Assignment> deciding, @Nullable Release release) {

    public Decision {
        Objects.requireNonNull(outcome);
        deciding = List.copyOf(deciding);
        if (deciding.isEmpty() || (release != null) != (outcome == Outcome.REQUIRED)) {
            throw new IllegalArgumentException("a decision has a decider, and a release when it is required");
        }
    }

    /** The assignment that decides; where level ones disagree, the first of them by id. */
    public Assignment winner() {
        return deciding.get(0);
    }

    /** The variant that a device takes: the first of the chosen release; null without one. */
    public @Nullable String variant() {
        return release == null ? null : release.variants().get(0);
    }
}
