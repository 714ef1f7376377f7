package rivo.server.catalogue.choice;

import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.server.audience.Names;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/** Who has fixed what of a title's choices. */
@RestController
@RequestMapping("/api/titles/{title}/choices")
class ChoicesApi {

    /**
     * What one assignment or person has fixed.
     *
     * @param kind assignment or person
     * @param id of the assignment, or of the person
     * @param name of the OUs that the assignment speaks for, or of the person
     * @param values by the ids of the choices
     */
    record FixedLine(String kind, String id, String name, Map<String, String> values) {
    }

    /** @param values by the ids of the choices; none to leave everything open again */
    record PersonChoices(Map<String, String> values) {
        PersonChoices {
            values = values == null ? Map.of() : Map.copyOf(values);
        }
    }

    private final FixedChoices fixed;
    private final CurrentSnapshot current;

    ChoicesApi(FixedChoices fixed, CurrentSnapshot current) {
        this.fixed = fixed;
        this.current = current;
    }

    /** Live assignments first, the oldest first; then people, by name. */
    @GetMapping
    List<FixedLine> fixed(@PathVariable String title) {
        Snapshot now = current.now();
        now.get(Titles.PART).record(title);
        Estate estate = now.estate();
        List<FixedLine> lines = new ArrayList<>();
        for (Assignment assignment : estate.assignments().of(title)) {
            Map<String, String> values = FixedChoices.of(now, assignment.id());
            if (!values.isEmpty() && assignment.isLive(estate.asOf())) {
                lines.add(new FixedLine("assignment", assignment.id(), names(estate, assignment), values));
            }
        }
        FixedChoices.people(now, title).entrySet().stream()
                .map(e -> new FixedLine("person", e.getKey(), FixedChoices.name(estate, e.getKey()), e.getValue()))
                .sorted(java.util.Comparator.comparing(FixedLine::name)).forEach(lines::add);
        return lines;
    }

    private static String names(Estate estate, Assignment assignment) {
        return String.join(", ", assignment.include().stream().map(target -> Names.of(estate, target)).toList());
    }

    /** @param person the id or the account name */
    @PutMapping("/people/{person}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void fix(@PathVariable String title, @PathVariable String person, @RequestBody PersonChoices choices, Principal who) {
        fixed.fix(who.getName(), title, person, choices.values());
    }
}
