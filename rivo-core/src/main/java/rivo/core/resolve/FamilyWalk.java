package rivo.core.resolve;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;
import rivo.core.estate.Title;

/**
 * Settles a family of titles for many units at once.
 *
 * <p><b>Alike:</b> what a settlement comes to depends only on how the titles face it, so units that are alike in all of
 * it are settled once. Units are told apart step by step: each thing that can be said of a unit (a base outcome, a way of
 * being present, a newest release) is a <em>mark</em>; a unit that gets a mark moves from the class it was in to the
 * class of that and the mark. Of one thread.
 */
final class FamilyWalk {

    private final Family family;
    /** For each unit its class; class 0 has no mark. */
    private final int[] classes;
    private final List<UnitClass> all = new ArrayList<>();
    private final List<Mark> marks = new ArrayList<>();

    /** A mark: how it changes what a class says of its units. */
    private interface Mark {
        void put(Said into);
    }

    /** A class of units that are alike: that of {@code parent} with one mark more. */
    private record UnitClass(int parent, int mark) {
    }

    /** What the marks of a class say. */
    private final class Said {
        final TitleAtUnit[] titleAtUnit = new TitleAtUnit[family.titles().size()];
        final boolean[] deviceNeeds = new boolean[family.deviceNeeds().size()];

        Said() {
            java.util.Arrays.fill(titleAtUnit, TitleAtUnit.NOTHING);
        }
    }

    FamilyWalk(Family family, int units) {
        this.family = family;
        this.classes = new int[units];
        all.add(new UnitClass(-1, -1));
    }

    /** Everything that is known of one title of the family before relations are looked at. */
    record Known(List<UnitsWith<BaseOutcome>> base, List<UnitsWith<Presences.Way>> present) {
    }

    /**
     * @param known for each title of the family, in its order
     * @param choices for each title its releases
     * @param deviceNeedsMet for each of the family's device needs the units whose device meets it
     * @param among the units that are asked about
     * @return for each title its decisions, {@link Settlement#STAYS} among them
     */
    List<List<UnitsWith<Decision>>> settle(List<Known> known, List<Choices> choices, List<Positions> deviceNeedsMet,
            Positions among) {
        Positions touched = touched(known).and(among);
        for (int t = 0; t < known.size(); t++) {
            mark(t, known.get(t), choices.get(t), touched);
        }
        for (int i = 0; i < deviceNeedsMet.size(); i++) {
            int need = i;
            mark(deviceNeedsMet.get(i).and(touched), into -> into.deviceNeeds[need] = true);
        }
        return gather(touched);
    }

    private static Positions touched(List<Known> known) {
        List<Positions> sets = new ArrayList<>();
        for (Known title : known) {
            title.base().forEach(share -> sets.add(share.units()));
            title.present().forEach(share -> sets.add(share.units()));
        }
        return Positions.union(sets);
    }

    private void mark(int t, Known known, Choices choices, Positions touched) {
        Positions assigned = Positions.union(known.base().stream().map(UnitsWith::units).toList());
        for (UnitsWith<BaseOutcome> share : known.base()) {
            mark(share.units().and(touched), into -> into.titleAtUnit[t] = new TitleAtUnit(share.what(), null, into.titleAtUnit[t].present(),
                    into.titleAtUnit[t].reached()));
        }
        Map<Integer, List<Positions>> byReached = new LinkedHashMap<>();
        for (UnitsWith<Presences.Way> share : known.present()) {
            byReached.computeIfAbsent(family.reached(t, share.what().version()), r -> new ArrayList<>())
                    .add(share.units());
        }
        byReached.forEach((reached, units) -> mark(Positions.union(units).and(touched), into -> into.titleAtUnit[t] =
                new TitleAtUnit(into.titleAtUnit[t].base(), into.titleAtUnit[t].newest(), true, reached)));
        for (UnitsWith<Choice> share : choices.newest(touched.without(assigned)).shares()) {
            mark(share.units(), into -> into.titleAtUnit[t] = new TitleAtUnit(null, share.what(), into.titleAtUnit[t].present(),
                    into.titleAtUnit[t].reached()));
        }
    }

    private void mark(Positions units, Mark mark) {
        int number = marks.size();
        marks.add(mark);
        // Where each class goes with this mark; 0 until somebody goes there.
        int[] next = new int[all.size()];
        units.forEach(unit -> {
            int was = classes[unit];
            if (next[was] == 0) {
                next[was] = all.size();
                all.add(new UnitClass(was, number));
            }
            classes[unit] = next[was];
        });
    }

    private List<List<UnitsWith<Decision>>> gather(Positions touched) {
        int n = family.titles().size();
        PositionsBuilder[][] ofClass = new PositionsBuilder[all.size()][];
        List<Map<Decision, PositionsBuilder>> gathered = new ArrayList<>();
        for (Title title : family.titles()) {
            gathered.add(new LinkedHashMap<>());
        }
        touched.forEach(unit -> {
            int unitClass = classes[unit];
            PositionsBuilder[] builders = ofClass[unitClass];
            if (builders == null) {
                builders = builders(settle(unitClass), gathered, touched);
                ofClass[unitClass] = builders;
            }
            for (int t = 0; t < n; t++) {
                if (builders[t] != null) {
                    builders[t].add(unit);
                }
            }
        });
        List<List<UnitsWith<Decision>>> shares = new ArrayList<>();
        for (Map<Decision, PositionsBuilder> one : gathered) {
            List<UnitsWith<Decision>> built = new ArrayList<>();
            one.forEach((decision, units) -> built.add(new UnitsWith<>(decision, units.build())));
            shares.add(built);
        }
        return shares;
    }

    /** For each title where the units of a class go; null where it has no decision. */
    private static @Nullable PositionsBuilder[] builders(@Nullable Decision[] decisions,
            List<Map<Decision, PositionsBuilder>> gathered, Positions touched) {
        PositionsBuilder[] builders = new PositionsBuilder[decisions.length];
        for (int t = 0; t < decisions.length; t++) {
            if (decisions[t] != null) {
                builders[t] = gathered.get(t).computeIfAbsent(decisions[t],
                        d -> new PositionsBuilder(touched.first(), touched.end()));
            }
        }
        return builders;
    }

    private @Nullable Decision[] settle(int unitClass) {
        Said said = new Said();
        for (int c = unitClass; c > 0; c = all.get(c).parent()) {
            marks.get(all.get(c).mark()).put(said);
        }
        return new Settlement(family, said.titleAtUnit, need -> said.deviceNeeds[need]).settle();
    }
}
