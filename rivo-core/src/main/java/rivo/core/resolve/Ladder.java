package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rivo.core.audience.Pair;
import rivo.core.audience.Positions;
import rivo.core.audience.Remaining;
import rivo.core.estate.Assignment;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Intent;

/**
 * Walks the ladder for one title and many units at once (section 4 of the resolution rules).
 *
 * <p><b>How.</b> The ranked pairs stand in ladder order. Walking down, each group of level ones decides for the units at
 * which it has candidates among those that <b>remain</b>, the ones nobody stronger has decided for; the walk stops when
 * none remain. What is <em>later</em> waits aside, and decides at the end for units without any candidate. Of one thread.
 */
final class Ladder {

    private final List<RankedPair> rankedPairs;
    private final Levels levels;
    private final Remaining remaining;
    private final Map<BaseOutcome, List<Positions>> decided = new LinkedHashMap<>();
    private final List<Hit> later = new ArrayList<>();

    /** A ranked pair with units at which it is a candidate, or would be once its wave opens. */
    private record Hit(RankedPair ranked, Positions units) {
    }

    private Ladder(RankedPairs rankedPairs, Remaining remaining) {
        this.rankedPairs = rankedPairs.live();
        this.levels = rankedPairs.levels();
        this.remaining = remaining;
    }

    /**
     * Decides for all that remain; those without an outcome are left. Releases and seats are not looked at yet:
     * installing outcomes come without a choice.
     */
    static List<UnitsWith<BaseOutcome>> walk(RankedPairs rankedPairs, Remaining remaining) {
        return new Ladder(rankedPairs, remaining).walk();
    }

    private List<UnitsWith<BaseOutcome>> walk() {
        for (int at = 0; at < rankedPairs.size() && !remaining.isEmpty();) {
            int end = levels.end(at);
            level(at, end);
            at = end;
        }
        if (!remaining.isEmpty() && !later.isEmpty()) {
            later.sort(Comparator.comparing(Hit::ranked, RankedPair.STRONGEST_THEN_OLDEST));
            later.forEach(hit -> decide(hit, Outcome.LATER));
        }
        List<UnitsWith<BaseOutcome>> shares = new ArrayList<>(decided.size());
        decided.forEach((outcome, units) -> shares.add(new UnitsWith<>(outcome, Positions.union(units))));
        return shares;
    }

    private void level(int from, int to) {
        List<Hit> hits = new ArrayList<>(to - from);
        for (int i = from; i < to; i++) {
            RankedPair ranked = rankedPairs.get(i);
            Pair.Split split = ranked.pair().among(remaining);
            if (!split.later().isEmpty()) {
                later.add(new Hit(ranked, split.later()));
            }
            if (!split.now().isEmpty()) {
                hits.add(new Hit(ranked, split.now()));
            }
        }
        if (hits.isEmpty()) {
            return;
        }
        if (hits.size() == 1) {
            put(hits.get(0).ranked(), outcome(hits.get(0).ranked()), hits.get(0).units());
            return;
        }
        contest(hits);
        hits.forEach(hit -> decide(hit, outcome(hit.ranked())));
    }

    static Outcome outcome(RankedPair ranked) {
        return switch (ranked.assignment().intent()) {
            case REQUIRED -> Outcome.REQUIRED;
            case AVAILABLE -> Outcome.AVAILABLE;
            case UNINSTALL -> Outcome.UNINSTALL;
        };
    }

    private void decide(Hit hit, Outcome outcome) {
        Positions units = remaining.and(hit.units());
        if (!units.isEmpty()) {
            put(hit.ranked(), outcome, units);
        }
    }

    private void put(RankedPair winner, Outcome outcome, Positions units) {
        Reason reason = outcome == Outcome.LATER ? null : Reason.ASSIGNED;
        put(new BaseOutcome(outcome, reason, List.of(winner.assignment()), winner.rank(), null), units);
    }

    private void put(BaseOutcome outcome, Positions units) {
        decided.computeIfAbsent(outcome, o -> new ArrayList<>(1)).add(units);
        remaining.remove(units);
    }

    /** Where level ones want to install and to remove, they are contested, by exactly those that hold there. */
    private void contest(List<Hit> hits) {
        int installing = 0;
        for (Hit hit : hits) {
            installing += intent(hit).installs() ? 1 : 0;
        }
        if (installing == 0 || installing == hits.size()) {
            return;
        }
        Positions contested = union(hits, true).and(union(hits, false));
        if (contested.isEmpty()) {
            return;
        }
        Map<List<Assignment>, Positions> parts = Map.of(List.of(), contested);
        for (Hit hit : hits) {
            Map<List<Assignment>, Positions> next = new LinkedHashMap<>();
            parts.forEach((group, units) -> {
                put(next, group, units.without(hit.units()));
                put(next, with(group, hit.ranked().assignment()), units.and(hit.units()));
            });
            parts = next;
        }
        Rank rank = hits.get(0).ranked().rank();
        parts.forEach((group, units) -> put(new BaseOutcome(Outcome.CONTESTED, null, group, rank, null), units));
    }

    private static Positions union(List<Hit> hits, boolean installing) {
        return Positions.union(hits.stream().filter(h -> intent(h).installs() == installing).map(Hit::units).toList());
    }

    private static Intent intent(Hit hit) {
        return hit.ranked().assignment().intent();
    }

    private static void put(Map<List<Assignment>, Positions> parts, List<Assignment> group, Positions units) {
        if (!units.isEmpty()) {
            parts.merge(group, units, Positions::or);
        }
    }

    /** By id, each once. */
    static List<Assignment> with(List<Assignment> group, Assignment one) {
        List<Assignment> longer = new ArrayList<>(group);
        if (!longer.contains(one)) {
            longer.add(one);
        }
        longer.sort(Comparator.comparing(Assignment::id, CodePointOrder.INSTANCE));
        return List.copyOf(longer);
    }
}
