package rivo.core.audience;

import java.util.Arrays;
import java.util.Comparator;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Devices;
import rivo.core.estate.Scope;

/** The units of a scope in the order of their device's id, and then of their person's. Immutable. */
public final class UnitRanks {

    private final int[] unitAt;
    private final int[] rankOf;

    /** Costs a sort of the devices' ids. */
    UnitRanks(Audiences audiences, Scope scope) {
        Devices devices = audiences.estate().devices();
        Integer[] byId = new Integer[devices.size()];
        Arrays.setAll(byId, p -> p);
        Arrays.parallelSort(byId, Comparator.comparing(p -> devices.at(p).id(), CodePointOrder.INSTANCE));
        int n = audiences.size(scope);
        unitAt = new int[n];
        rankOf = new int[n];
        int rank = 0;
        for (int device : byId) {
            int from = scope == Scope.DEVICE ? device : audiences.units().from(device);
            int to = scope == Scope.DEVICE ? device + 1 : audiences.units().to(device);
            for (int unit = from; unit < to; unit++) {
                unitAt[rank] = unit;
                rankOf[unit] = rank++;
            }
        }
    }

    /** The unit of this rank, from 0 on. */
    public int unitAt(int rank) {
        return unitAt[rank];
    }

    /** The rank of this unit, from 0 on. */
    public int rankOf(int unit) {
        return rankOf[unit];
    }

    /** The first so many of the units. Costs a step for each of them, and a scan over the bits of all. */
    public Positions first(Positions units, int count) {
        Words ranks = new Words(0, unitAt.length);
        units.forEach(unit -> ranks.add(rankOf[unit]));
        Words first = new Words(0, unitAt.length);
        long[] words = ranks.raw();
        int left = count;
        for (int w = 0; w < words.length && left > 0; w++) {
            for (long rest = words[w]; rest != 0 && left > 0; rest &= rest - 1) {
                first.add(unitAt[(w << 6) + Long.numberOfTrailingZeros(rest)]);
                left--;
            }
        }
        return first.toPositions();
    }
}
