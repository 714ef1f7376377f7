package rivo.core.rehearse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;
import rivo.core.estate.Estate;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.Share;
import rivo.core.resolve.TitleOutcomes;

/**
 * What changes for whom when one estate becomes another.
 *
 * <p>Only the titles that the change can touch are looked at, with those that are related to them; each says why. Costs a
 * resolution of each such title, twice, and one pass over their differences.
 *
 * @param titles those that were looked at; a title may turn out to be unchanged
 */
public record Rehearsal(List<TitleDifference> titles) {

    public Rehearsal {
        titles = List.copyOf(titles);
    }

    /** From one estate to another, whatever the two have in common. */
    public static Rehearsal of(Resolver before, Resolver after) {
        return new Comparison(before, after).rehearse();
    }

    /** From one estate to what edits make of it: {@code after} shares with {@code before} whatever it can. */
    public static Rehearsal of(Resolver before, Estate after) {
        return of(before, before.follow(after));
    }

    /** The titles for which something changes. */
    public List<TitleDifference> changed() {
        return titles.stream().filter(t -> !t.isEmpty()).toList();
    }

    /** The differences for a title; null when it was not looked at. */
    public @Nullable TitleDifference of(String title) {
        return titles.stream().filter(t -> t.title().id().equals(title)).findFirst().orElse(null);
    }

    /** Compares two resolvers. Of one thread. */
    private static final class Comparison {

        private final Resolver before;
        private final Resolver after;
        private final boolean sameUnits;
        /** Outcomes that have been worked out and not been looked at, by title. */
        private final Map<String, TitleOutcomes> ofOld = new HashMap<>();
        private final Map<String, TitleOutcomes> ofNew = new HashMap<>();

        Comparison(Resolver before, Resolver after) {
            this.before = before;
            this.after = after;
            this.sameUnits = before.audiences().sameUnitsAs(after.audiences());
        }

        Rehearsal rehearse() {
            List<TitleDifference> titles = new ArrayList<>();
            Map<String, String> touched = new Touched(before, after, sameUnits).titles();
            touched.forEach((id, why) -> {
                Title old = before.estate().title(id);
                Title now = after.estate().title(id);
                titles.add(old != null && now != null && old.scope() == now.scope() ? difference(old, now, why)
                        : appearedOrGone(old, now, why));
            });
            return new Rehearsal(titles);
        }

        private TitleDifference difference(Title old, Title now, String why) {
            List<Difference> gone = new ArrayList<>();
            settle(old, now);
            List<Share<Decision>> was = moved(Objects.requireNonNull(ofOld.remove(old.id())), gone);
            List<Difference> differences = new ArrayList<>();
            List<Positions> nowUnits = new ArrayList<>();
            for (Share<Decision> is : Objects.requireNonNull(ofNew.remove(now.id())).shares()) {
                Positions rest = is.units();
                nowUnits.add(is.units());
                for (Share<Decision> share : was) {
                    Positions both = rest.and(share.units());
                    if (!both.isEmpty()) {
                        rest = rest.without(both);
                        add(differences, share.what(), is.what(), both);
                    }
                }
                add(differences, null, is.what(), rest);
            }
            Positions decided = Positions.union(nowUnits);
            was.forEach(share -> add(differences, share.what(), null, share.units().without(decided)));
            return new TitleDifference(now, why, differences, gone);
        }

        /** What the title came to, and comes to: titles of one family are touched together, and settled together. */
        private void settle(Title old, Title now) {
            if (!ofOld.containsKey(old.id()) || !ofNew.containsKey(now.id())) {
                Resolver.Compared compared = after.familyOf(now, before);
                ofOld.putAll(compared.was());
                ofNew.putAll(compared.is());
            }
        }

        private static void add(List<Difference> differences, @Nullable Decision old, @Nullable Decision now,
                Positions units) {
            if (!units.isEmpty() && (old == null || now == null || !old.saysTheSameAs(now))) {
                differences.add(Difference.of(old, now, units));
            }
        }

        private TitleDifference appearedOrGone(@Nullable Title old, @Nullable Title now, String why) {
            List<Difference> differences = new ArrayList<>();
            List<Difference> gone = new ArrayList<>();
            if (now != null) {
                after.title(now).shares().forEach(s -> add(differences, null, s.what(), s.units()));
            }
            if (old != null) {
                before.title(old).shares().forEach(s -> add(gone, s.what(), null, s.units()));
            }
            return new TitleDifference(Objects.requireNonNull(now == null ? old : now), why, differences, gone);
        }

        /** The old outcomes at the new positions of their units; what has no unit any more goes to {@code gone}. */
        private List<Share<Decision>> moved(TitleOutcomes old, List<Difference> gone) {
            if (sameUnits) {
                return old.shares();
            }
            Scope scope = old.title().scope();
            List<Share<Decision>> moved = new ArrayList<>();
            for (Share<Decision> share : old.shares()) {
                PositionsBuilder there = new PositionsBuilder(0, after.audiences().size(scope));
                PositionsBuilder not = new PositionsBuilder(0, before.audiences().size(scope));
                share.units().forEach(unit -> {
                    int now = newUnit(scope, unit);
                    if (now < 0) {
                        not.add(unit);
                    } else {
                        there.add(now);
                    }
                });
                Positions left = not.build();
                if (!left.isEmpty()) {
                    gone.add(Difference.of(share.what(), null, left));
                }
                moved.add(new Share<>(share.what(), there.build()));
            }
            return moved;
        }

        private int newUnit(Scope scope, int unit) {
            Audiences old = before.audiences();
            return after.audiences().unit(scope, old.device(unit, scope).id(), old.user(unit, scope));
        }
    }
}
