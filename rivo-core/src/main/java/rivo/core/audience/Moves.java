package rivo.core.audience;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
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
public final class Moves {

    /** How far one looks for the place from which the two lists go on alike. */
    private static final int NEAR = 64;
    private static final int MOST_RUNS = 512;
    private static final int[] NO_RUNS = {};

    /** Where each earlier position is now, -1 for what has gone; null when all are where they were. */
    private final int @Nullable [] to;
    /** Where runs begin that have moved as one, or gone; empty when there are too many to be worth it. */
    private final int[] runs;
    private final int size;
    private final Positions changed;
    private final boolean hasNew;

    private Moves(int @Nullable [] to, int size, Positions changed, boolean hasNew) {
        this.to = to;
        this.runs = to == null ? NO_RUNS : runs(to);
        this.size = size;
        this.changed = changed;
        this.hasNew = hasNew;
    }

    private static int[] runs(int[] to) {
        int[] runs = new int[MOST_RUNS];
        int n = 0;
        for (int p = 0; p < to.length; p++) {
            boolean goesOn = p > 0 && (to[p] < 0 ? to[p - 1] < 0 : to[p - 1] >= 0 && to[p] == to[p - 1] + 1);
            if (!goesOn && n == MOST_RUNS) {
                return NO_RUNS;
            }
            if (!goesOn) {
                runs[n++] = p;
            }
        }
        return Arrays.copyOf(runs, n);
    }

    static Moves none(int size) {
        return new Moves(null, size, Positions.NONE, false);
    }

    /**
     * Of things that are told apart by their places alone.
     *
     * @param to where each is now, -1 for one that has gone
     * @param size how many places there are now
     */
    static Moves of(int[] to, int size) {
        return new Moves(to, size, Positions.NONE, false);
    }

    private static Moves inPlace(int size, int[] changed) {
        return new Moves(null, size, Positions.ofSorted(changed), false);
    }

    static Moves between(Devices old, Devices newer) {
        if (old == newer) {
            return none(newer.size());
        }
        return old.sameOrderAs(newer) ? inPlace(newer.size(), newer.changedSince(old))
                : new Lists<>(old.size(), old::at, newer.size(), newer::at, Device::id, newer::positionOf).moves();
    }

    static Moves between(Users old, Users newer) {
        if (old == newer) {
            return none(newer.size());
        }
        return old.sameOrderAs(newer) ? inPlace(newer.size(), newer.changedSince(old))
                : new Lists<>(old.size(), old::at, newer.size(), newer::at, User::id, newer::positionOf).moves();
    }

    private record Lists<T>(int oldSize, IntFunction<T> old, int size, IntFunction<T> now, Function<T, String> id,
            ToIntFunction<String> position) {

        Moves moves() {
            PositionsBuilder changed = new PositionsBuilder(0, size);
            int[] to = walk(changed);
            Positions stayed = stayed(to);
            return new Moves(to, size, changed.build().or(Positions.range(0, size).without(stayed)), stayed.size() < size);
        }

        /** @param changed takes those that are another object now */
        private int[] walk(PositionsBuilder changed) {
            int[] to = new int[oldSize];
            int next = 0;
            for (int p = 0; p < oldSize; p++) {
                T was = old.apply(p);
                int at = next;
                if (next == size || now.apply(next) != was) {
                    at = position.applyAsInt(id.apply(was));
                    if (at >= 0 && now.apply(at) != was) {
                        changed.add(at);
                    }
                }
                next = at >= next && at - next <= NEAR ? at + 1 : next;
                to[p] = at;
            }
            return to;
        }

        private Positions stayed(int[] to) {
            PositionsBuilder stayed = new PositionsBuilder(0, size);
            for (int at : to) {
                stayed.add(at);
            }
            return stayed.build();
        }
    }

    /** Whether each is where it was, and none has come or gone. */
    public boolean areNone() {
        return to == null;
    }

    /** Whether there is one that was not there before. */
    public boolean haveNew() {
        return hasNew;
    }

    /** The positions, now, of what is another object than before, or was not there. */
    public Positions changed() {
        return changed;
    }

    /** Where this earlier position is now; -1 when it has gone. */
    public int to(int position) {
        return to == null ? position : to[position];
    }

    /** The earlier positions of what has gone. */
    public Positions gone() {
        return to == null ? Positions.NONE : earlier(at -> at < 0);
    }

    /** The earlier positions of those that are at these positions now, and of what has gone. */
    public Positions before(Positions now) {
        return to == null ? now : earlier(at -> at < 0 || now.contains(at));
    }

    private Positions earlier(IntPredicate test) {
        int[] places = Objects.requireNonNull(to);
        PositionsBuilder earlier = new PositionsBuilder(0, places.length);
        for (int p = 0; p < places.length; p++) {
            if (test.test(places[p])) {
                earlier.add(p);
            }
        }
        return earlier.build();
    }

    /** Where the members of an earlier set are now. Costs nothing where none has moved. */
    public Positions of(Positions earlier) {
        if (to == null || earlier.isEmpty()) {
            return earlier;
        }
        if (earlier instanceof ListedPositions) {
            return Positions.ofSorted(sorted(earlier.toArray(), to));
        }
        if (runs.length == 0) {
            PositionsBuilder now = new PositionsBuilder(0, size);
            earlier.forEach(p -> now.add(to[p]));
            return now.build();
        }
        List<Positions> moved = new ArrayList<>();
        for (int r = 0; r < runs.length; r++) {
            if (to[runs[r]] >= 0) {
                moved.add(earlier.in(runs[r], end(r)).shifted(to[runs[r]] - runs[r]));
            }
        }
        return Positions.union(moved);
    }

    /** Along the runs one need not go to the far ends of the memory for each. */
    private int[] sorted(int[] earlier, int[] to) {
        int[] now = new int[earlier.length];
        int n = 0;
        int run = 0;
        for (int p : earlier) {
            while (run < runs.length && end(run) <= p) {
                run++;
            }
            int at = runs.length == 0 ? to[p] : to[runs[run]] < 0 ? -1 : to[runs[run]] + p - runs[run];
            if (at >= 0) {
                now[n++] = at;
            }
        }
        Arrays.sort(now, 0, n);
        return Arrays.copyOf(now, n);
    }

    private int end(int run) {
        return run + 1 < runs.length ? runs[run + 1] : Objects.requireNonNull(to).length;
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
