package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;
import rivo.core.audience.Step;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/**
 * The devices at which titles that are the same, and are assigned the same, may come to something else in another state of
 * the estate: those for which audiences may be different, and those where a seat goes to somebody else.
 *
 * @param before at their positions in the one state
 * @param now at their positions in the other
 */
public record ConcernedDevices(Positions before, Positions now) {

    /**
     * Costs the ladders of the titles with seats, in both.
     *
     * @param step between the audiences of the two
     * @return null when so many are concerned that all may as well be looked at, or the time is another
     */
    public static @Nullable ConcernedDevices of(Step step, Resolver before, Resolver now) {
        if (!before.estate().asOf().equals(now.estate().asOf())) {
            return null;
        }
        Positions affected = step.affected();
        if (affected.size() > now.estate().devices().size() / 2) {
            return null;
        }
        Positions all = affected.or(seatedOtherwise(step, before, now));
        return new ConcernedDevices(step.devices().before(all), all);
    }

    /** The devices, at their positions now, on which some unit waits for a seat in one of the two states only. */
    private static Positions seatedOtherwise(Step step, Resolver before, Resolver now) {
        List<Positions> otherwise = new ArrayList<>();
        for (Title title : now.estate().titles()) {
            Title old = before.estate().title(title.id());
            if (title.seats() == null && (old == null || old.seats() == null)) {
                continue;
            }
            Positions was = old == null || old.scope() != title.scope() ? Positions.NONE
                    : step.units(title.scope()).of(before.waiting(old));
            Positions is = now.waiting(title);
            Positions units = was.without(is).or(is.without(was));
            otherwise.add(title.scope() == Scope.DEVICE ? units : now.audiences().units().devicesOf(units));
        }
        return Positions.union(otherwise);
    }
}
