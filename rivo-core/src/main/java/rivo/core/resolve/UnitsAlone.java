package rivo.core.resolve;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rivo.core.audience.Positions;

/**
 * At which units of those where an edited title comes to something else by itself it is alone: no title that has to do with it has anything to do
 * there, before or after. Immutable.
 *
 * <p><b>Why that is enough.</b> Settling a unit looks at a title only for one that may stand against it, and for one that needs it; the latter may
 * be pulled in themselves by others that need them. {@link Family#concerning} lists all of those. Where none of them is assigned or present, nothing
 * asks what the title is, so that all others come to the same before and after; and nothing stands against it, so that it comes to what it
 * is by itself, as long as it needs nothing there but {@linkplain ComesAnyway what comes before it in any case}.
 */
final class UnitsAlone {

    private final Map<Integer, Positions> alone;
    private final Positions others;

    /** @param family as this state of the estate has it: equal in both */
    record State(TitleResolution titles, Family family) {

        List<UnitsWith<BaseOutcome>> base(int title, Positions units) {
            return titles.base(family.titles().get(title), units);
        }

        /** Those of the units at which no title that has to do with this one is assigned or present. */
        Positions meetingNone(int title, Positions units) {
            Positions left = units;
            BitSet concerning = family.concerning(title);
            for (int other = concerning.nextSetBit(0); other >= 0 && !left.isEmpty(); other = concerning.nextSetBit(other + 1)) {
                left = other == title ? left : left.without(titles.touched(family.titles().get(other), left));
            }
            return left;
        }
    }

    private UnitsAlone(Map<Integer, Positions> alone, Positions others) {
        this.alone = alone;
        this.others = others;
    }

    /**
     * What the titles of the family come to in both, at the units at which that is something else.
     *
     * @param differing by the places of titles in the family, the units at which they come to something else by themselves
     */
    static BeforeAndAfter settled(Map<Integer, Positions> differing, State before, State after) {
        UnitsAlone units = of(differing, before, after);
        return before.titles().compared(after.titles(), after.family(), differing.keySet(), units.others, units.alone, Threads.forUnits(units.others, after.family()));
    }

    private static UnitsAlone of(Map<Integer, Positions> differing, State before, State after) {
        Map<Integer, Positions> alone = new LinkedHashMap<>();
        List<Positions> others = new ArrayList<>();
        differing.forEach((title, units) -> {
            Positions left = alone(title, units, differing.keySet(), List.of(before, after));
            alone.put(title, left);
            others.add(units.without(left));
        });
        return new UnitsAlone(alone, Positions.union(others));
    }

    private static Positions alone(int title, Positions differing, Set<Integer> edited, List<State> both) {
        Positions left = differing;
        for (State state : both) {
            left = state.meetingNone(title, left);
        }
        for (State state : both) {
            left = new ComesAnyway(state, edited).of(title, left);
        }
        return left;
    }
}
