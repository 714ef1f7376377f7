package rivo.core.resolve;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Release;

/**
 * The outcome for a title, with what decided it (section 9). The same decision usually stands for many units.
 *
 * @param reason null where the outcome says it all
 * @param choice for required, available and waiting ones
 * @param deciding the winner; where level ones disagree all of them, by id; for what is left, the assignment that put it
 *     on; none for what nobody assigned
 * @param by the id of the title that implies, replaces, displaces or blocks it
 */
public record Decision(Outcome outcome, @Nullable Reason reason, @Nullable Choice choice, List<Assignment> deciding,
        @Nullable String by) {

    public Decision {
        Objects.requireNonNull(outcome);
        deciding = List.copyOf(deciding);
        if ((choice != null) != outcome.hasRelease()) {
            throw new IllegalArgumentException("a release is chosen for what is put on, offered or waiting");
        }
    }

    /** The assignment that decides; where level ones disagree, the first of them by id; null when nobody assigned it. */
    public @Nullable Assignment winner() {
        return deciding.isEmpty() ? null : deciding.get(0);
    }

    public @Nullable Release release() {
        return choice == null ? null : choice.release();
    }

    /** The id of the variant that the device takes; null without a release. */
    public @Nullable String variant() {
        return choice == null ? null : choice.variant().id();
    }

    /** Whether both would be written alike: assignments count by their ids, releases by their versions. */
    public boolean saysTheSameAs(Decision other) {
        return outcome == other.outcome && reason == other.reason && Objects.equals(by, other.by)
                && Objects.equals(variant(), other.variant()) && Objects.equals(version(), other.version())
                && deciding.stream().map(Assignment::id).toList().equals(other.deciding.stream().map(Assignment::id).toList());
    }

    private @Nullable String version() {
        return choice == null ? null : choice.release().version().toString();
    }
}
