package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import rivo.core.audience.Positions;

/**
 * At which units whatever a title needs comes before it in any case, so that it makes no difference there whether it asks. Of one thread.
 *
 * <p><b>Why that is certain.</b> Whether a need for an {@linkplain Family#isUndisputed undisputed} title is met does not depend on others. Where that is required by
 * itself, it comes to that whoever needs it. Else the first that needs it implies it; and a title that is required, needs it alone, and meets none that has to do with it, is
 * accepted in its turn. Where that is before the turn of the title which is asked about, this is not the first.
 */
final class ComesAnyway {

    private final TitleResolution titles;
    private final Family family;
    private final Set<Integer> edited;

    /** @param edited the places of titles that come to something else by themselves in another state: of these nothing is certain */
    ComesAnyway(TitleResolution titles, Family family, Set<Integer> edited) {
        this.titles = titles;
        this.family = family;
        this.edited = edited;
    }

    /** Those of the units at which the title needs nothing, or only what comes before it in any case. */
    Positions of(int title, Positions among) {
        Positions left = among;
        for (UnitsWith<BaseOutcome> share : titles.base(family.titles().get(title), among)) {
            if (share.what().outcome() == Outcome.REQUIRED) {
                for (Family.LocalNeed need : family.needs(number(title, share))) {
                    Positions asking = share.units().and(left);
                    left = left.without(asking.without(coming(title, share.what(), need, asking)));
                }
            }
        }
        return left;
    }

    private int number(int title, UnitsWith<BaseOutcome> share) {
        return family.number(title, share.what().choice());
    }

    private Positions coming(int title, BaseOutcome base, Family.LocalNeed need, Positions units) {
        int needed = need.title();
        if (needed < 0 || edited.contains(needed) || !family.isUndisputed(needed)) {
            return Positions.NONE;
        }
        List<Positions> coming = new ArrayList<>(List.of(required(needed, units)));
        Positions left = units.without(coming.get(0)).and(offered(needed, units));
        for (int other : family.neededBy(needed)) {
            if (left.isEmpty()) {
                break;
            }
            Positions before = edited.contains(other) ? Positions.NONE : askingBefore(other, needed, title, base, left);
            Positions sure = before.isEmpty() ? before : alone(other, before);
            coming.add(sure);
            left = left.without(sure);
        }
        return Positions.union(coming);
    }

    private Positions required(int title, Positions units) {
        return Positions.union(titles.base(family.titles().get(title), units).stream().filter(share -> share.what().outcome() == Outcome.REQUIRED)
                .map(share -> share.units().and(units)).toList());
    }

    /** Where a title has a release for whoever needs it: by an offer, or where it is nobody's. */
    private Positions offered(int title, Positions units) {
        Positions bare = units;
        List<Positions> offered = new ArrayList<>();
        for (UnitsWith<BaseOutcome> share : titles.base(family.titles().get(title), units)) {
            bare = bare.without(share.units());
            if (share.what().outcome() == Outcome.AVAILABLE) {
                offered.add(share.units().and(units));
            }
        }
        titles.choices(family.titles().get(title)).newest(bare).shares().forEach(chosen -> offered.add(chosen.units()));
        return Positions.union(offered);
    }

    /** Where one is required that needs this title alone, and has its turn before that of another with this base outcome. */
    private Positions askingBefore(int asking, int needed, int title, BaseOutcome base, Positions units) {
        return Positions.union(titles.base(family.titles().get(asking), units).stream()
                .filter(share -> share.what().outcome() == Outcome.REQUIRED && needsAlone(number(asking, share), needed)
                        && isBefore(asking, share.what(), title, base))
                .map(share -> share.units().and(units)).toList());
    }

    private boolean needsAlone(int release, int needed) {
        Family.LocalNeed[] needs = family.needs(release);
        return needs.length == 1 && needs[0].title() == needed;
    }

    /** As {@link Turns} orders them; nobody waits for one whom nothing stands against. */
    private static boolean isBefore(int one, BaseOutcome base, int other, BaseOutcome otherBase) {
        int order = Long.compare(base.strength(), otherBase.strength());
        order = order != 0 ? order : Long.compare(base.age(), otherBase.age());
        return order != 0 ? order < 0 : one < other;
    }

    /** Those of the units at which a title meets none that has to do with it. */
    private Positions alone(int title, Positions units) {
        Positions left = units;
        int[] concerning = family.concerning(title).stream().filter(other -> other != title).toArray();
        for (int i = 0; i < concerning.length && !left.isEmpty(); i++) {
            left = edited.contains(concerning[i]) ? Positions.NONE : left.without(titles.touched(family.titles().get(concerning[i]), left));
        }
        return left;
    }
}
