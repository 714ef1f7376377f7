package rivo.server.today;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.SeldomCounted;
import rivo.server.request.RequestDocument;

/** What needs somebody. */
@RestController
class TodayApi {

    /**
     * What needs somebody; what devices failed at and how the directory is followed is told where those are ({@code /api/fleet},
     * {@code /api/directory}).
     *
     * @param requests how many wait for an answer
     * @param contested titles that level assignments disagree about
     * @param blocked titles that are kept from devices by something that they need
     * @param seats titles whose licence is used up
     */
    record Today(int requests, List<TitleCount> contested, List<TitleCount> blocked, List<TitleCount> seats) {
    }

    /** @param units how many devices it is so on, or people on devices for a title that is installed for each person */
    record TitleCount(String title, String name, boolean perPerson, int units) {
    }

    private final CurrentSnapshot current;
    private final SeldomCounted<Troubles> troubles = new SeldomCounted<>();

    TodayApi(CurrentSnapshot current) {
        this.current = current;
    }

    private record Troubles(List<TitleCount> contested, List<TitleCount> blocked, List<TitleCount> seats) {

        /** Finds out once for each title what it comes to. */
        static Troubles of(Snapshot now) {
            List<TitleCount> contested = new ArrayList<>();
            List<TitleCount> blocked = new ArrayList<>();
            List<TitleCount> seats = new ArrayList<>();
            for (Title title : now.estate().titles()) {
                TitleOutcomes outcomes = now.resolver().title(title);
                add(contested, outcomes, Outcome.CONTESTED);
                add(blocked, outcomes, Outcome.BLOCKED);
                add(seats, outcomes, Outcome.WAITING);
            }
            return new Troubles(mostFirst(contested), mostFirst(blocked), mostFirst(seats));
        }

        private static void add(List<TitleCount> counts, TitleOutcomes outcomes, Outcome outcome) {
            Title title = outcomes.title();
            int units = outcomes.with(outcome).size();
            if (units > 0) {
                counts.add(new TitleCount(title.id(), title.name(), title.scope() == Scope.USER, units));
            }
        }

        private static List<TitleCount> mostFirst(List<TitleCount> counts) {
            return counts.stream().sorted(Comparator.comparing(TitleCount::units).reversed().thenComparing(TitleCount::name)).toList();
        }
    }

    /** Requests as they are now; titles as they were a moment ago: what each comes to has to be found out, and is not too often. */
    @GetMapping("/api/today")
    Today today() {
        Snapshot now = current.now();
        int asked = (int) now.get(RequestDocument.KIND).stream().filter(RequestDocument::isAsked).count();
        Troubles known = troubles.get(() -> Troubles.of(now));
        return new Today(asked, known.contested(), known.blocked(), known.seats());
    }
}
