package rivo.server.catalogue.licence;

import java.security.Principal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Unit;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/** A title's licence: its text, and who holds its seats. */
@RestController
@RequestMapping("/api/titles/{title}")
class LicenceApi {

    /** @param text what was read, to the letter */
    record Accepted(String text) {
    }

    /**
     * A device with a seat, or one that waits for one.
     *
     * @param people the account names of its people
     * @param state held (it is there), coming (it shall be there), waiting (there is no seat left)
     */
    record Holder(String device, String name, List<String> people, String state, @Nullable String version) {
    }

    /**
     * @param seats absent where they are not counted
     * @param held by devices on which it is
     * @param coming reserved for devices that shall get it
     * @param waiting devices without one
     * @param holders as they are served: those with it first, then by the device's id (section 6 of the rules); a part
     */
    record SeatsView(@Nullable Integer seats, int held, int coming, int waiting, List<Holder> holders) {
    }

    private final Licences licences;
    private final CurrentSnapshot current;

    LicenceApi(Licences licences, CurrentSnapshot current) {
        this.licences = licences;
        this.current = current;
    }

    /** Accepts the licence text for the organisation; refused when it is another one by now. */
    @PostMapping("/licence")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void accept(@PathVariable String title, @RequestBody Accepted accepted, Principal who) {
        licences.accept(who.getName(), title, accepted.text() == null ? "" : accepted.text());
    }

    /** @param limit how many holders are listed, at most 1,000 */
    @GetMapping("/seats")
    SeatsView seats(@PathVariable String title, @RequestParam(defaultValue = "200") int limit) {
        Snapshot now = current.now();
        Title known = Titles.title(now, title);
        Resolver resolver = now.resolver();
        List<Holder> all = new ArrayList<>();
        TitleOutcomes outcomes = resolver.title(known);
        for (Outcome outcome : List.of(Outcome.REQUIRED, Outcome.WAITING)) {
            resolver.audiences().each(outcomes.with(outcome)).forEach(unit -> all.add(holder(resolver.estate(), known, unit, outcome)));
        }
        all.sort(Comparator.comparing((Holder h) -> switch (h.state()) {
            case "held" -> 0;
            case "coming" -> 1;
            default -> 2;
        }).thenComparing(Holder::device));
        return new SeatsView(known.seats(), count(all, "held"), count(all, "coming"), count(all, "waiting"),
                all.stream().limit(Math.max(0, Math.min(limit, 1000))).toList());
    }

    private static int count(List<Holder> holders, String state) {
        return (int) holders.stream().filter(h -> h.state().equals(state)).count();
    }

    private static Holder holder(Estate estate, Title title, Unit unit, Outcome outcome) {
        Device device = unit.device();
        boolean personal = !unit.user().isEmpty();
        Present present = device.present(title.id(), personal ? unit.user() : null);
        String state = outcome == Outcome.WAITING ? "waiting" : present == null ? "coming" : "held";
        return new Holder(device.id(), device.name(), (personal ? List.of(unit.user()) : device.people()).stream()
                .map(person -> FixedChoices.name(estate, person)).toList(), state,
                present == null || present.version() == null ? null : present.version().toString());
    }
}
