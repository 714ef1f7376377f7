package rivo.core.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;

/**
 * The differences for one title.
 *
 * @param why the reason for which the title had to be looked at
 * @param differences of units that are there after the change
 * @param gone of units that are there no more, at their positions before it
 */
public record TitleDifference(Title title, String why, List<Difference> differences, List<Difference> gone) {

    public TitleDifference {
        differences = List.copyOf(differences);
        gone = List.copyOf(gone);
    }

    /** Whether nothing changes for anybody. */
    public boolean isEmpty() {
        return differences.isEmpty() && gone.isEmpty();
    }

    /** The units for which the change comes to this. */
    public UnitSet with(Effect effect) {
        return units(d -> d.effect() == effect);
    }

    /** Put on now, and not before. */
    public UnitSet gains() {
        return units(d -> is(d.after(), Outcome.REQUIRED) && !is(d.before(), Outcome.REQUIRED));
    }

    /** Put on before, and not now. */
    public UnitSet loses() {
        return units(d -> is(d.before(), Outcome.REQUIRED) && !is(d.after(), Outcome.REQUIRED));
    }

    /** Told to be taken off now, and not before. */
    public UnitSet removes() {
        return units(d -> takesOff(d.after()) && !takesOff(d.before()));
    }

    /** Contested now, and not before. */
    public UnitSet newlyContested() {
        return units(d -> is(d.after(), Outcome.CONTESTED) && !is(d.before(), Outcome.CONTESTED));
    }

    /** Contested before, and not now. */
    public UnitSet settled() {
        return units(d -> is(d.before(), Outcome.CONTESTED) && !is(d.after(), Outcome.CONTESTED));
    }

    /** Those of {@link #removes} where it is present now: removals that will really happen. */
    public UnitSet removesPresent(Audiences after) {
        return removes().filter(unit -> present(after, unit) != null);
    }

    /** Those of {@link #gains} that do not have the chosen release, or a newer one, yet. */
    public UnitSet fetches(Audiences after) {
        List<UnitSet> sets = new ArrayList<>();
        for (Difference difference : differences) {
            Release release = difference.after() == null ? null : difference.after().release();
            if (is(difference.after(), Outcome.REQUIRED) && !is(difference.before(), Outcome.REQUIRED)
                    && release != null) {
                sets.add(difference.units().filter(unit -> !isThere(present(after, unit), release)));
            }
        }
        return UnitSet.union(title.scope(), sets);
    }

    private static boolean isThere(@Nullable Present present, Release release) {
        return present != null && present.version() != null && present.version().compareTo(release.version()) >= 0;
    }

    private @Nullable Present present(Audiences audiences, int unit) {
        Scope scope = title.scope();
        return audiences.device(unit, scope).present(title.id(),
                scope == Scope.USER ? audiences.user(unit, scope) : null);
    }

    private static boolean is(@Nullable Decision decision, Outcome outcome) {
        return decision != null && decision.outcome() == outcome;
    }

    private static boolean takesOff(@Nullable Decision decision) {
        return is(decision, Outcome.UNINSTALL) || is(decision, Outcome.REPLACED);
    }

    private UnitSet units(Predicate<Difference> test) {
        return UnitSet.union(title.scope(), differences.stream().filter(test).map(Difference::units).toList());
    }
}
