package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import rivo.core.audience.Positions;
import rivo.core.audience.UnitRanks;

/** Gives the seats of a licence out (section 6): where the title is present first, then by device and person. */
final class Seats {

    private Seats() {
    }

    /** Those of the units that have to wait for one of so many seats. */
    static Positions waiting(int seats, Positions wanting, Positions present, UnitRanks ranks) {
        if (wanting.size() <= seats) {
            return Positions.NONE;
        }
        Positions there = wanting.and(present);
        if (there.size() >= seats) {
            return wanting.without(ranks.first(there, seats));
        }
        Positions others = wanting.without(there);
        return others.without(ranks.first(others, seats - there.size()));
    }

    /** The same outcomes, where those of required units without a seat have become waiting ones. */
    static List<UnitsWith<BaseOutcome>> mark(List<UnitsWith<BaseOutcome>> shares, Positions waiting) {
        List<UnitsWith<BaseOutcome>> marked = new ArrayList<>();
        for (UnitsWith<BaseOutcome> share : shares) {
            BaseOutcome base = share.what();
            Positions wait = base.outcome() == Outcome.REQUIRED ? share.units().and(waiting) : Positions.NONE;
            if (wait.isEmpty()) {
                marked.add(share);
                continue;
            }
            marked.add(new UnitsWith<>(new BaseOutcome(Outcome.WAITING, base.reason(), base.deciding(), base.rank(),
                    Objects.requireNonNull(base.choice())), wait));
            Positions rest = share.units().without(wait);
            if (!rest.isEmpty()) {
                marked.add(new UnitsWith<>(base, rest));
            }
        }
        return marked;
    }
}
