package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import rivo.core.estate.Assignment;
import rivo.core.estate.Intent;
import rivo.core.estate.Release;
import rivo.core.estate.Title;

/**
 * Decides between candidates that hold at the same unit (sections 4 and 5 of the resolution rules).
 *
 * <p><b>Level group:</b> G is the strongest candidate and all that are level with it. Only G decides.
 */
final class Ladder {

    private Ladder() {
    }

    /** The run of candidates that are level with the one at {@code from}: the position after its end. */
    static int endOfLevel(List<Candidate> strongestFirst, int from) {
        int end = from + 1;
        while (end < strongestFirst.size()
                && strongestFirst.get(end).place().compareTo(strongestFirst.get(from).place()) == 0) {
            end++;
        }
        return end;
    }

    /** What the level group decides; empty for an empty group. */
    static Optional<Decision> decide(Title title, List<Assignment> group) {
        if (group.isEmpty()) {
            return Optional.empty();
        }
        List<Assignment> installing = oldestFirst(group, Intent.REQUIRED);
        List<Assignment> removing = oldestFirst(group, Intent.UNINSTALL);
        if (installing.isEmpty()) {
            return Optional.of(new Decision(Outcome.UNINSTALL, removing.subList(0, 1), null));
        }
        if (!removing.isEmpty()) {
            List<Assignment> all = new ArrayList<>(group);
            return Optional.of(new Decision(Outcome.CONTESTED,
                    all.stream().distinct().sorted(Comparator.comparing(Assignment::id)).toList(), null));
        }
        Release newest = title.newest();
        List<Assignment> winner = installing.subList(0, 1);
        return Optional.of(newest == null ? new Decision(Outcome.UNFIT, winner, null)
                : new Decision(Outcome.REQUIRED, winner, newest));
    }

    private static List<Assignment> oldestFirst(List<Assignment> group, Intent intent) {
        return group.stream().filter(a -> a.intent() == intent).sorted(Comparator.comparingLong(Assignment::seq))
                .toList();
    }
}
