package rivo.core.resolve;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;

/**
 * What a title comes to by itself, before its relations are looked at (sections 4 to 6).
 *
 * @param reason as it will be written: assigned or requested, {@link Reason#NO_RELEASE} for a blocked one; null where
 *     none is
 * @param deciding the winner; where level ones disagree all of them, by id
 * @param rank on the ladder
 * @param choice for required, available and waiting ones
 * @param strength {@link Rank#place} of the rank: kept, as the age is, since turns are given by both, again and again
 * @param age the number of the oldest that decides
 */
public record BaseOutcome(Outcome outcome, @Nullable Reason reason, List<Assignment> deciding, Rank rank,
        @Nullable Choice choice, long strength, long age) {

    public BaseOutcome {
        Objects.requireNonNull(outcome);
        Objects.requireNonNull(rank);
        deciding = List.copyOf(deciding);
    }

    public BaseOutcome(Outcome outcome, @Nullable Reason reason, List<Assignment> deciding, Rank rank, @Nullable Choice choice) {
        this(outcome, reason, deciding, rank, choice, rank.place(), oldest(deciding));
    }

    private static long oldest(List<Assignment> deciding) {
        long oldest = Long.MAX_VALUE;
        for (Assignment one : deciding) {
            oldest = Math.min(oldest, one.seq());
        }
        return oldest;
    }

    Decision decision() {
        return new Decision(outcome, reason, choice, deciding, null);
    }
}
