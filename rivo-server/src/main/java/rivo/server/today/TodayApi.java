package rivo.server.today;

import java.util.Comparator;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
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

    TodayApi(CurrentSnapshot current) {
        this.current = current;
    }

    /** Costs a look at what each title comes to, which is known. */
    @GetMapping("/api/today")
    Today today() {
        Snapshot now = current.now();
        int asked = (int) now.get(RequestDocument.KIND).stream().filter(RequestDocument::isAsked).count();
        return new Today(asked, with(now, Outcome.CONTESTED), with(now, Outcome.BLOCKED), with(now, Outcome.WAITING));
    }

    /** Those that have this outcome anywhere, the most first. */
    private static List<TitleCount> with(Snapshot now, Outcome outcome) {
        return now.estate().titles().stream().map(title -> count(now, title, outcome)).filter(one -> one.units() > 0)
                .sorted(Comparator.comparing(TitleCount::units).reversed().thenComparing(TitleCount::name)).toList();
    }

    private static TitleCount count(Snapshot now, Title title, Outcome outcome) {
        return new TitleCount(title.id(), title.name(), title.scope() == Scope.USER,
                now.resolver().title(title).with(outcome).size());
    }
}
