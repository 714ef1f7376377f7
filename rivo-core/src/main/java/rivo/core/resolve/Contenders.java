package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import rivo.core.audience.Audiences;
import rivo.core.audience.Pair;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Request;
import rivo.core.estate.Title;

/**
 * Everything about one title that does not depend on the unit: who speaks for it, in ladder order, and its releases from
 * the newest down. Immutable.
 *
 * @param live the pairs of live assignments, the strongest first
 * @param choices which release and variant a unit gets
 * @param requested the units for which somebody took the offer
 */
record Contenders(Title title, List<Contender> live, Choices choices, Positions requested) {

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
        return new Contenders(title, List.copyOf(live), new Choices(audiences, title),
                requested(audiences, title));
    }

    private static Positions requested(Audiences audiences, Title title) {
        List<Request> requests = audiences.estate().requests(title.id());
        return requests.isEmpty() ? Positions.NONE : Positions.of(requests.stream()
                .mapToInt(r -> audiences.unit(title.scope(), r.device(), r.user())).filter(u -> u >= 0).toArray());
    }
}
