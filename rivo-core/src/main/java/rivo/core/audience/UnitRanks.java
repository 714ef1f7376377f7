package rivo.core.audience;

import org.jspecify.annotations.Nullable;

/** The units of a scope in the order of their device's id, and then of their person's. Immutable. */
public final class UnitRanks {

    private final int[] unitAt;
    private final int[] rankOf;

    /**
     * @param devices their positions in the order of their ids
     * @param people the units of scope user; null for scope device
     */
    UnitRanks(int[] devices, @Nullable PersonUnits people) {
        int n = people == null ? devices.length : people.size();
        unitAt = new int[n];
        rankOf = new int[n];
        int rank = 0;
        for (int device : devices) {
            int from = people == null ? device : people.from(device);
            int to = people == null ? device + 1 : people.to(device);
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

    /** The first so many of the units. Costs two walks over them, and a scan over the bits of all. */
    public Positions first(Positions units, int count) {
        if (count <= 0 || units.size() <= count) {
            return count <= 0 ? Positions.NONE : units;
        }
        BitBuffer ranks = new BitBuffer(0, unitAt.length);
        units.forEach(unit -> ranks.add(rankOf[unit]));
        int last = placeOf(ranks.raw(), count);
        BitBuffer first = new BitBuffer(units.first(), units.end());
        units.forEach(unit -> {
            if (rankOf[unit] <= last) {
                first.add(unit);
            }
        });
        return first.toPositions();
    }

    /** Where the bit stands that so many bits, this one included, are set up to. */
    private static int placeOf(long[] words, int count) {
        int left = count;
        int w = 0;
        while (left > Long.bitCount(words[w])) {
            left -= Long.bitCount(words[w++]);
        }
        long rest = words[w];
        for (; left > 1; left--) {
            rest &= rest - 1;
        }
        return (w << 6) + Long.numberOfTrailingZeros(rest);
    }
}
