package rivo.core.resolve;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/** What the titles that are settled together come to in two states of the estate, by id, at least where that is not the same. */
public record BeforeAndAfter(Map<String, TitleOutcomes> was, Map<String, TitleOutcomes> is) {

    /**
     * What a title, and those that are settled with it, come to in two states of the estate, both of which know the title.
     * Where only assignments differ, only the units at which one of the titles comes to something else by itself are looked
     * at: elsewhere nothing can be different. Where such a title meets none that is related to it, only that one is. Costs two ladders for each
     * title whose assignments differ, and a walk over the other units in both states at once, by all processors where there are many.
     *
     * @param among the devices outside which nothing can be different; null for all
     */
    public static BeforeAndAfter of(Title title, Resolver before, Resolver now, @Nullable ConcernedDevices among) {
        Family is = now.relations().of(title.id());
        Family was = before.relations().of(title.id());
        TitleResolution present = new TitleResolution(now, now.presences());
        TitleResolution then = new TitleResolution(before, before.presences());
        boolean onlyAssignments = now.audiences().sharesAllWith(before.audiences()) && now.presences() == before.presences()
                && is.deviceNeeds().isEmpty() && sameTitles(was, is)
                && is.titles().stream().allMatch(t -> now.leavingOf(t.id()).equals(before.leavingOf(t.id())));
        if (onlyAssignments) {
            Map<Integer, Positions> differing = present.differing(then, is);
            Positions edited = Positions.union(List.copyOf(differing.values()));
            then.takeOver(present, is, edited, Threads.forUnits(edited, is));
            return UnitsAlone.settled(differing, new UnitsAlone.State(then, was), new UnitsAlone.State(present, is));
        }
        return new BeforeAndAfter(then.family(was, units(before, was, among == null ? null : among.before())),
                present.family(is, units(now, is, among == null ? null : among.now())));
    }

    /** Whether the titles are the very same, with the very same releases. */
    private static boolean sameTitles(Family was, Family is) {
        boolean same = was.titles().size() == is.titles().size();
        for (int t = 0; same && t < is.titles().size(); t++) {
            same = was.titles().get(t) == is.titles().get(t);
        }
        return same;
    }

    /** The units of a family on these devices; all, when none are named. */
    private static Positions units(Resolver resolver, Family family, @Nullable Positions devices) {
        if (devices == null) {
            return Positions.range(0, resolver.audiences().size(family.scope()));
        }
        return family.scope() == Scope.DEVICE ? devices : resolver.audiences().units().ofDevices(devices);
    }
}
