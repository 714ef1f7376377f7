package rivo.server.directory;

import java.time.Instant;
import java.util.List;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Target;

/**
 * Something that assignments name and that has left the directory: what includes it rests until it is back or is dropped, what excludes it
 * goes on keeping out whom it last held.
 *
 * @param target as it is written in assignments, such as {@code ou:ID}
 * @param name what it was called
 * @param since when it left
 * @param devices how many devices it held then
 * @param people how many people it held then
 * @param namedBy the ids of the assignments that name it, ended ones left out
 */
record GoneView(String target, String name, Instant since, int devices, int people, List<String> namedBy) {

    GoneView {
        namedBy = List.copyOf(namedBy);
    }

    /** All of an estate, those that left last first. */
    static List<GoneView> of(Estate estate) {
        return estate.gone().values().stream().sorted((a, b) -> b.since().compareTo(a.since())).map(gone -> of(estate, gone)).toList();
    }

    private static GoneView of(Estate estate, GoneReference gone) {
        return new GoneView(gone.target().toString(), gone.name(), gone.since(), gone.devices().size(), gone.users().size(),
                estate.assignments().all().stream().filter(a -> a.state() != AssignmentState.RETIRED && names(a, gone.target()))
                        .map(Assignment::id).toList());
    }

    private static boolean names(Assignment assignment, Target target) {
        return assignment.include().contains(target) || assignment.exclude().contains(target)
                || assignment.base() != null && Target.ou(assignment.base()).equals(target)
                || assignment.waves().stream().anyMatch(wave -> wave.to().contains(target));
    }
}
