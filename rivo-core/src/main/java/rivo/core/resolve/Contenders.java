package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import rivo.core.audience.Audiences;
import rivo.core.audience.Pair;
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
 * @param choices which release and variant a unit gets
 * @param requested the units for which somebody took the offer
 */
record Contenders(Title title, List<Contender> live, List<Integer> levelEnds, Choices choices, Positions requested) {

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
        return new Contenders(title, live, levelEnds(live), new Choices(audiences, title),
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

    /** Whether any of them may have something to say where this row was taken. */
    boolean anyMayHold(TargetRow row) {
        for (int i = 0; i < live.size(); i++) {
            if (row.mayHold(live.get(i).pair())) {
                return true;
            }
        }
        return false;
    }

    private static Positions requested(Audiences audiences, Title title) {
        List<Request> requests = audiences.estate().requests(title.id());
        return requests.isEmpty() ? Positions.NONE : Positions.of(requests.stream()
                .mapToInt(r -> audiences.unit(title.scope(), r.device(), r.user())).filter(u -> u >= 0).toArray());
    }
}
