package rivo.core.resolve;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Pair;
import rivo.core.audience.PairNumbers;
import rivo.core.audience.Positions;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Request;
import rivo.core.estate.Target;
import rivo.core.estate.Title;

/**
 * Everything about one title that does not depend on the unit: who speaks for it, in ladder order, and its releases from
 * the newest down. Immutable.
 *
 * @param live the pairs of live assignments, the strongest first
 * @param winning what each of them comes to where it wins; with its choice where that is the same at all units
 * @param levels which of them are level with each other
 * @param numbers of their pairs
 * @param choices which release and variant a unit gets
 * @param requested the units for which somebody took the offer
 */
record RankedPairs(Title title, List<RankedPair> live, List<BaseOutcome> winning, Levels levels, PairNumbers numbers,
        Choices choices, Positions requested) {

    RankedPairs {
        live = List.copyOf(live);
        winning = List.copyOf(winning);
    }

    static RankedPairs of(Audiences audiences, Title title) {
        Estate estate = audiences.estate();
        List<RankedPair> live = new ArrayList<>();
        for (Assignment assignment : estate.assignments().of(title.id())) {
            if (assignment.isLive(estate.asOf())) {
                for (Pair pair : Pair.of(audiences, assignment, title.scope())) {
                    live.add(new RankedPair(pair, Rank.of(estate.ous(), assignment, pair.target())));
                }
            }
        }
        live.sort(RankedPair.STRONGEST_FIRST);
        return of(title, live, new Choices(audiences, title), requested(audiences, title));
    }

    private static RankedPairs of(Title title, List<RankedPair> live, Choices choices, Positions requested) {
        Choice only = title.seats() == null && requested.isEmpty() ? choices.only() : null;
        return new RankedPairs(title, live, live.stream().map(c -> winning(c, only)).toList(), Levels.of(live),
                PairNumbers.of(live.stream().map(RankedPair::pair).toList()), choices, requested);
    }

    /**
     * These in other audiences in which everyone stands as in their own, and the same is assigned and requested: the very
     * same, where all that they look at is.
     */
    RankedPairs in(Audiences other, Audiences own) {
        List<RankedPair> now = live.stream().map(c -> c.in(other, own)).toList();
        Choices chosen = choices.in(other, own);
        boolean same = chosen == choices;
        for (int i = 0; same && i < now.size(); i++) {
            same = now.get(i) == live.get(i);
        }
        return same ? this : of(title, now, chosen, requested);
    }

    /** Has those pairs look that have looked among the others: of the same assignment, with the same target. */
    void catchUpWith(RankedPairs others) {
        if (others != this) {
            Set<Asked> asked = new HashSet<>();
            others.live.stream().map(RankedPair::pair).filter(Pair::hasLooked).forEach(pair -> asked.add(Asked.of(pair)));
            live.stream().map(RankedPair::pair).filter(pair -> asked.contains(Asked.of(pair))).forEach(Pair::look);
        }
    }

    /** What tells a pair from the others of its title. */
    private record Asked(String assignment, Target target) {

        static Asked of(Pair pair) {
            return new Asked(pair.assignment().id(), pair.target());
        }
    }

    private static BaseOutcome winning(RankedPair winner, @Nullable Choice only) {
        Outcome outcome = Ladder.outcome(winner);
        boolean same = outcome.hasRelease() && winner.assignment().pin() == null;
        return new BaseOutcome(outcome, Reason.ASSIGNED, List.of(winner.assignment()), winner.rank(),
                same ? only : null);
    }

    /**
     * The same decision as {@link Ladder}'s, for one unit; null when nobody has anything to say there. With its choice
     * where that is the same at all units.
     *
     * @param row of the unit's device
     * @param mayHold the pairs that may hold there, those of this title from {@code start} on
     */
    @Nullable BaseOutcome at(int unit, TargetRow row, BitSet mayHold, int start) {
        RankedPair later = null;
        for (int i = next(mayHold, start, 0); i < live.size(); i = next(mayHold, start, i + 1)) {
            Pair.Standing standing = standing(i, unit, row);
            if (standing == Pair.Standing.CANDIDATE) {
                return decide(i, unit, row, mayHold, start);
            }
            RankedPair ranked = live.get(i);
            if (standing == Pair.Standing.LATER
                    && (later == null || RankedPair.STRONGEST_THEN_OLDEST.compare(ranked, later) < 0)) {
                later = ranked;
            }
        }
        return later == null ? null
                : new BaseOutcome(Outcome.LATER, null, List.of(later.assignment()), later.rank(), null);
    }

    /** The first ranked pair from this place on that may hold; some place at or after the ladder's end without one. */
    private static int next(BitSet mayHold, int start, int from) {
        int next = mayHold.nextSetBit(start + from);
        return next < 0 ? Integer.MAX_VALUE : next - start;
    }

    private Pair.Standing standing(int at, int unit, TargetRow row) {
        return numbers.isCertain(at, row) ? Pair.Standing.CANDIDATE : live.get(at).pair().at(unit, row);
    }

    /** The group of the first candidate decides: those before it on its level are none. */
    private BaseOutcome decide(int first, int unit, TargetRow row, BitSet mayHold, int start) {
        List<Assignment> group = null;
        int end = levels.end(first);
        for (int i = next(mayHold, start, first + 1); i < end; i = next(mayHold, start, i + 1)) {
            if (standing(i, unit, row) == Pair.Standing.CANDIDATE) {
                group = group == null ? Ladder.with(List.of(), live.get(first).assignment()) : group;
                group = Ladder.with(group, live.get(i).assignment());
            }
        }
        if (group != null && live.get(first).assignment().intent().installs()
                && group.stream().anyMatch(a -> !a.intent().installs())) {
            return new BaseOutcome(Outcome.CONTESTED, null, group, live.get(first).rank(), null);
        }
        return winning.get(first);
    }

    private static Positions requested(Audiences audiences, Title title) {
        List<Request> requests = audiences.estate().requests(title.id());
        return requests.isEmpty() ? Positions.NONE : Positions.of(requests.stream()
                .mapToInt(r -> audiences.unit(title.scope(), r.device(), r.user())).filter(u -> u >= 0).toArray());
    }
}
