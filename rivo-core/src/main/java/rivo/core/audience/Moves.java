package rivo.core.audience;

import java.util.Arrays;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.User;
import rivo.core.estate.Users;

/**
 * What has become of the positions of a list, devices or people, in a newer one. Immutable.
 *
 * <p><b>How.</b> Both lists are walked side by side. Mostly they hold the very same objects, one after the other, so that
 * only those that changed or moved, and what stands next to them, are looked up by id.
 */
final class Moves {

    /** How far one looks for the place from which the two lists go on alike. */
    private static final int NEAR = 64;

    /** Where each earlier position is now, -1 for what has gone; null when all are where they were. */
    private final int @Nullable [] to;
    private final int size;
    private final Positions changed;
    private final boolean hasNew;

    private Moves(int @Nullable [] to, int size, Positions changed, boolean hasNew) {
        this.to = to;
        this.size = size;
        this.changed = changed;
        this.hasNew = hasNew;
    }

    static Moves none(int size) {
        return new Moves(null, size, Positions.NONE, false);
    }

    static Moves between(Devices old, Devices newer) {
        return old == newer ? none(newer.size()) : between(old.size(), old::at, newer.size(), newer::at, Device::id,
                newer::positionOf);
    }

    static Moves between(Users old, Users newer) {
        return old == newer ? none(newer.size()) : between(old.size(), old::at, newer.size(), newer::at, User::id,
                newer::positionOf);
    }

    private static <T> Moves between(int oldSize, IntFunction<T> old, int size, IntFunction<T> now,
            Function<T, String> id, ToIntFunction<String> position) {
        int[] to = new int[oldSize];
        PositionsBuilder same = new PositionsBuilder(0, size);
        boolean inPlace = oldSize == size;
        int stayed = 0;
        int next = 0;
        for (int p = 0; p < oldSize; p++) {
            T was = old.apply(p);
            int at = next < size && now.apply(next) == was ? next : position.applyAsInt(id.apply(was));
            if (at >= 0) {
                stayed++;
                if (now.apply(at) == was) {
                    same.add(at);
                }
            }
            if (at >= next && at - next <= NEAR) {
                next = at + 1;
            }
            to[p] = at;
            inPlace &= at == p;
        }
        return new Moves(inPlace ? null : to, size, Positions.range(0, size).without(same.build()), stayed < size);
    }

    /** Whether each is where it was, and none has come or gone. */
    boolean areNone() {
        return to == null;
    }

    /** Whether there is one that was not there before. */
    boolean haveNew() {
        return hasNew;
    }

    /** The positions, now, of what is another object than before, or was not there. */
    Positions changed() {
        return changed;
    }

    /** Where this earlier position is now; -1 when it has gone. */
    int to(int position) {
        return to == null ? position : to[position];
    }

    /** Where the members of an earlier set are now. Costs a step for each, and nothing where none has moved. */
    Positions of(Positions earlier) {
        if (to == null || earlier.isEmpty()) {
            return earlier;
        }
        if (earlier.size() * Positions.SPARSE < size) {
            return Positions.ofSorted(earlier.stream().map(p -> to[p]).filter(p -> p >= 0).sorted().toArray());
        }
        PositionsBuilder now = new PositionsBuilder(0, size);
        earlier.forEach(p -> now.add(to[p]));
        return now.build();
    }

    /** These moves, and then those. */
    Moves then(Moves next) {
        Positions all = next.of(changed).or(next.changed);
        if (to == null) {
            return new Moves(next.to, next.size, all, hasNew || next.hasNew);
        }
        int[] both = Arrays.stream(to).map(p -> p < 0 ? -1 : next.to(p)).toArray();
        return new Moves(both, next.size, all, hasNew || next.hasNew);
    }
}
