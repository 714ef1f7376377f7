package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import rivo.core.audience.Positions;

/**
 * At which units whatever a title needs comes before it in any case, so that it makes no difference there whether it asks. Of one thread.
 *
 * <p><b>Why that is certain.</b> Whether a need for an {@linkplain Family#isUndisputed undisputed} title is met does not depend on others. Where that is required by
 * itself, it comes to that whoever needs it. Else the first that needs it implies it; and a title that is required, needs it alone, and meets none that has to do with it, is
 * accepted in its turn. Where that is before the turn of the title which is asked about, this is not the first.
 */
final class ComesAnyway {

    private final UnitsAlone.State state;
    private final Family family;
    private final Set<Integer> edited;

    /** @param edited the places of titles that come to something else by themselves in another state: of these nothing is certain */
    ComesAnyway(UnitsAlone.State state, Set<Integer> edited) {
        this.state = state;
        this.family = state.family();
        this.edited = edited;
    }

    /** Those of the units at which the title needs nothing, or only what comes before it in any case. */
    Positions of(int title, Positions among) {
        Positions left = among;
        for (UnitsWith<BaseOutcome> share : state.base(title, among)) {
            if (share.what().outcome() == Outcome.REQUIRED) {
                for (Family.LocalNeed need : family.needs(family.number(title, share.what().choice()))) {
                    Positions asking = share.units().and(left);
                    left = left.without(asking.without(coming(title, share.what(), need, asking)));
                }
            }
        }
        return left;
    }

    private Positions coming(int title, BaseOutcome base, Family.LocalNeed need, Positions units) {
        int needed = need.title();
        if (units.isEmpty() || needed < 0 || edited.contains(needed) || !family.isUndisputed(needed)) {
            return Positions.NONE;
        }
        Positions required = where(needed, units, share -> share.outcome() == Outcome.REQUIRED);
        List<Positions> coming = new ArrayList<>(List.of(required));
        Positions left = offered(needed, units.without(required));
        for (int other : family.neededBy(needed)) {
            if (left.isEmpty()) {
                break;
            }
            if (isCertain(other)) {
                Positions before = state.meetingNone(other, where(other, left, share -> asksOnlyFor(other, share, needed) && isBefore(other, share, title, base)));
                coming.add(before);
                left = left.without(before);
            }
        }
        return Positions.union(coming);
    }

    /** Those of the units at which a title comes by itself to something for which this holds. */
    private Positions where(int title, Positions units, Predicate<BaseOutcome> holds) {
        return Positions.union(state.base(title, units).stream().filter(share -> holds.test(share.what())).map(share -> share.units().and(units)).toList());
    }

    /** Those of the units at which a title has a release for whoever needs it: by an offer, or where it is nobody's. */
    private Positions offered(int title, Positions units) {
        List<Positions> offered = new ArrayList<>(List.of(where(title, units, share -> share.outcome() == Outcome.AVAILABLE)));
        Positions bare = units.without(where(title, units, share -> true));
        state.titles().choices(family.titles().get(title)).newest(bare).shares().forEach(chosen -> offered.add(chosen.units()));
        return Positions.union(offered);
    }

    /** Whether neither it nor any that has to do with it comes to something else in another state. */
    private boolean isCertain(int title) {
        return family.concerning(title).stream().noneMatch(edited::contains);
    }

    private boolean asksOnlyFor(int title, BaseOutcome base, int needed) {
        Family.LocalNeed[] needs = family.needs(family.number(title, base.choice()));
        return base.outcome() == Outcome.REQUIRED && needs.length == 1 && needs[0].title() == needed;
    }

    /** As {@link Turns} orders them; nobody waits for one whom nothing stands against. */
    private static boolean isBefore(int one, BaseOutcome base, int other, BaseOutcome otherBase) {
        int order = Long.compare(base.strength(), otherBase.strength());
        order = order != 0 ? order : Long.compare(base.age(), otherBase.age());
        return order != 0 ? order < 0 : one < other;
    }
}
