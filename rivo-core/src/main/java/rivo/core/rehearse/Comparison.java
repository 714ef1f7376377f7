package rivo.core.rehearse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Moves;
import rivo.core.audience.Positions;
import rivo.core.audience.Step;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.BeforeAndAfter;
import rivo.core.resolve.ConcernedDevices;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;
import rivo.core.resolve.UnitsWith;

/**
 * Compares two resolvers, title by title. Of one thread.
 *
 * <p><b>How.</b> Titles that are edited themselves are looked at everywhere, unless they find out where it matters. All
 * others can come to something else only where a device, its people, its place or what holds it is different, or where a
 * seat goes to somebody else: only there they are looked at. Older outcomes go along to where their units are now.
 */
final class Comparison {

    private final Resolver before;
    private final Resolver after;
    private final Step step;
    private final Touched touched;
    /** Null for all, as soon as it is known. */
    private @Nullable ConcernedDevices among;
    private boolean knowsAmong;
    /** Outcomes that have been worked out and not been looked at, by title. */
    private final Map<String, TitleOutcomes> ofOld = new HashMap<>();
    private final Map<String, TitleOutcomes> ofNew = new HashMap<>();

    Comparison(Resolver before, Resolver after) {
        this.before = before;
        this.after = after;
        this.step = Step.between(before.audiences(), after.audiences());
        this.touched = new Touched(before, after, before.audiences().sameUnitsAs(after.audiences()));
    }

    List<TitleDifference> titles() {
        List<TitleDifference> titles = new ArrayList<>();
        touched.titles().forEach((id, why) -> {
            Title old = before.estate().title(id);
            Title now = after.estate().title(id);
            titles.add(old != null && now != null && old.scope() == now.scope() ? difference(old, now, why)
                    : appearedOrGone(old, now, why));
        });
        return titles;
    }

    private TitleDifference difference(Title old, Title now, String why) {
        List<Difference> gone = new ArrayList<>();
        settle(old, now);
        List<UnitsWith<Decision>> was = moved(Objects.requireNonNull(ofOld.remove(old.id())), gone);
        List<Difference> differences = new ArrayList<>();
        List<Positions> nowUnits = new ArrayList<>();
        Map<Brief, List<UnitsWith<Decision>>> alike = new HashMap<>();
        was.forEach(share -> alike.computeIfAbsent(Brief.of(share.what()), b -> new ArrayList<>(1)).add(share));
        for (DecidedUnits is : Objects.requireNonNull(ofNew.remove(now.id())).parts()) {
            Positions rest = is.units().positions();
            nowUnits.add(rest);
            for (UnitsWith<Decision> share : alike.getOrDefault(Brief.of(is.decision()), List.of())) {
                rest = share.what().saysTheSameAs(is.decision()) ? rest.without(share.units()) : rest;
            }
            for (int i = 0; i < was.size() && !rest.isEmpty(); i++) {
                Positions both = rest.and(was.get(i).units());
                if (!both.isEmpty()) {
                    rest = rest.without(both);
                    add(differences, was.get(i).what(), is.decision(), now.scope(), both);
                }
            }
            add(differences, null, is.decision(), now.scope(), rest);
        }
        Positions decided = Positions.union(nowUnits);
        was.forEach(share -> add(differences, share.what(), null, now.scope(), share.units().without(decided)));
        return new TitleDifference(now, why, differences, gone);
    }

    /** As much of a decision as is quickly looked up. */
    private record Brief(Outcome outcome, @Nullable Reason reason, @Nullable String winner, @Nullable String by) {

        static Brief of(Decision decision) {
            Assignment winner = decision.winner();
            return new Brief(decision.outcome(), decision.reason(), winner == null ? null : winner.id(), decision.by());
        }
    }

    /** What the title came to, and comes to: titles of one family are touched together, and settled together. */
    private void settle(Title old, Title now) {
        if (!ofOld.containsKey(old.id()) || !ofNew.containsKey(now.id())) {
            BeforeAndAfter compared = BeforeAndAfter.of(now, before, after, touched.isEdited(now.id()) ? null : among());
            ofOld.putAll(compared.was());
            ofNew.putAll(compared.is());
        }
    }

    private @Nullable ConcernedDevices among() {
        if (!knowsAmong) {
            knowsAmong = true;
            among = ConcernedDevices.of(step, before, after);
        }
        return among;
    }

    private static void add(List<Difference> differences, @Nullable Decision old, @Nullable Decision now, Scope scope,
            Positions units) {
        if (!units.isEmpty() && (old == null || now == null || !old.saysTheSameAs(now))) {
            differences.add(Difference.of(old, now, new UnitSet(scope, units)));
        }
    }

    private TitleDifference appearedOrGone(@Nullable Title old, @Nullable Title now, String why) {
        List<Difference> differences = new ArrayList<>();
        List<Difference> gone = new ArrayList<>();
        if (now != null) {
            after.title(now).parts().forEach(part -> differences.add(Difference.of(null, part.decision(), part.units())));
        }
        if (old != null) {
            before.title(old).parts().forEach(part -> gone.add(Difference.of(part.decision(), null, part.units())));
        }
        return new TitleDifference(Objects.requireNonNull(now == null ? old : now), why, differences, gone);
    }

    /** The old outcomes at the new positions of their units; what has no unit any more goes to {@code gone}. */
    private List<UnitsWith<Decision>> moved(TitleOutcomes old, List<Difference> gone) {
        Moves of = step.units(old.title().scope());
        Positions lost = of.gone();
        List<UnitsWith<Decision>> moved = new ArrayList<>();
        for (DecidedUnits part : old.parts()) {
            Positions units = part.units().positions();
            add(gone, part.decision(), null, old.title().scope(), units.and(lost));
            moved.add(new UnitsWith<>(part.decision(), of.areNone() ? units : of.of(units)));
        }
        return moved;
    }
}
