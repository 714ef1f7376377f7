package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Pair;
import rivo.core.audience.PairNumbers;
import rivo.core.audience.Positions;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Request;
import rivo.core.estate.Title;

/**
 * Everything about one title that does not depend on the unit: who speaks for it, in ladder order, and its releases from
 * the newest down. Immutable.
 *
 * @param live the pairs of live assignments, the strongest first
 * @param levelEnds for each of them the place after the last that is level with it
 * @param numbers of their pairs
 * @param choices which release and variant a unit gets
 * @param requested the units for which somebody took the offer
 */
record Contenders(Title title, List<Contender> live, List<Integer> levelEnds, PairNumbers numbers, Choices choices, Positions requested) {

    Contenders {
        live = List.copyOf(live);
        levelEnds = List.copyOf(levelEnds);
    }

    static Contenders of(Audiences audiences, Title title) {
        Estate estate = audiences.estate();
        List<Contender> live = new ArrayList<>();
        for (Assignment assignment : estate.assignments().of(title.id())) {
            if (assignment.isLive(estate.asOf())) {
                for (Pair pair : Pair.of(audiences, assignment, title.scope())) {
                    live.add(new Contender(pair, Place.of(estate.ous(), assignment, pair.target())));
                }
            }
        }
        live.sort(Contender.STRONGEST_FIRST);
        return new Contenders(title, live, levelEnds(live),
                PairNumbers.of(live.stream().map(Contender::pair).toList()), new Choices(audiences, title),
                requested(audiences, title));
    }

    private static List<Integer> levelEnds(List<Contender> live) {
        Integer[] ends = new Integer[live.size()];
        for (int i = live.size() - 1; i >= 0; i--) {
            boolean last = i == live.size() - 1 || !live.get(i).isLevelWith(live.get(i + 1));
            ends[i] = last ? (Integer) (i + 1) : ends[i + 1];
        }
        return List.of(ends);
    }

    /**
     * The same decision as {@link Ladder}'s, for one unit; null when nobody has anything to say there.
     *
     * @param row of the unit's device
     */
    @Nullable BaseOutcome at(int unit, TargetRow row) {
        Contender later = null;
        for (int i = numbers.next(row, 0); i < live.size(); i = numbers.next(row, i + 1)) {
            Contender contender = live.get(i);
            Pair.Standing standing = contender.pair().at(unit);
            if (standing == Pair.Standing.CANDIDATE) {
                return decide(i, unit, row);
            }
            if (standing == Pair.Standing.LATER
                    && (later == null || Contender.STRONGEST_THEN_OLDEST.compare(contender, later) < 0)) {
                later = contender;
            }
        }
        return later == null ? null
                : new BaseOutcome(Outcome.LATER, null, List.of(later.assignment()), later.place(), null);
    }

    /** The group of the first candidate decides: those before it on its level are none. */
    private BaseOutcome decide(int first, int unit, TargetRow row) {
        Contender winner = live.get(first);
        List<Assignment> group = null;
        int end = levelEnds.get(first);
        for (int i = numbers.next(row, first + 1); i < end; i = numbers.next(row, i + 1)) {
            Contender other = live.get(i);
            if (other.pair().at(unit) == Pair.Standing.CANDIDATE) {
                group = group == null ? Ladder.with(List.of(), winner.assignment()) : group;
                group = Ladder.with(group, other.assignment());
            }
        }
        if (group != null && winner.assignment().intent().installs()
                && group.stream().anyMatch(a -> !a.intent().installs())) {
            return new BaseOutcome(Outcome.CONTESTED, null, group, winner.place(), null);
        }
        return new BaseOutcome(Ladder.outcome(winner), Reason.ASSIGNED, List.of(winner.assignment()), winner.place(),
                null);
    }

    private static Positions requested(Audiences audiences, Title title) {
        List<Request> requests = audiences.estate().requests(title.id());
        return requests.isEmpty() ? Positions.NONE : Positions.of(requests.stream()
                .mapToInt(r -> audiences.unit(title.scope(), r.device(), r.user())).filter(u -> u >= 0).toArray());
    }
}
