package rivo.core.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Devices or people <b>in OU order</b>: first by the position of their OU in preorder, then by id. So all that an OU
 * holds, with what is below it, is one run of positions, and an OU target is a range. What has no OU stands with the
 * root's own.
 *
 * <p>Immutable. Looking one up by id or position is one step. Replacing one copies the table of references (4 to 8 bytes
 * each) and shares everything else; moving some, or the OUs, copies runs of it and sorts nothing.
 *
 * <p><b>How.</b> Everyone has a <b>slot</b>, a number that stays theirs wherever they move: the index from ids to slots is
 * made once, and where a slot stands is a table of numbers.
 */
final class OuOrder<T> {

    /** What tells one from the other, and where it stands. */
    record Kind<T>(Function<T, String> id, Function<T, @Nullable String> ou) {
    }

    private final Kind<T> kind;
    private final OuTree ous;
    private final T[] sorted;
    private final IdIndex slots;
    /** By slot. */
    private final int[] positions;
    /** By position. */
    private final int[] slotAt;
    /** For each OU position, the first of that OU or of a later one; one entry more than OUs. */
    private final int[] firstOf;

    private OuOrder(Kind<T> kind, OuTree ous, T[] sorted, IdIndex slots, int[] positions, int[] slotAt,
            int[] firstOf) {
        this.kind = kind;
        this.ous = ous;
        this.sorted = sorted;
        this.slots = slots;
        this.positions = positions;
        this.slotAt = slotAt;
        this.firstOf = firstOf;
    }

    /**
     * @param given the things
     * @param slots where their ids are found
     */
    static <T> OuOrder<T> of(OuTree ous, T[] given, IdIndex slots, Kind<T> kind) {
        int[] ouOf = new int[given.length];
        int[] firstOf = new int[ous.size() + 1];
        for (int i = 0; i < given.length; i++) {
            ouOf[i] = ous.position(kind.ou.apply(given[i]));
            firstOf[ouOf[i] + 1]++;
        }
        Arrays.parallelPrefix(firstOf, Integer::sum);
        T[] sorted = given.clone();
        int[] next = firstOf.clone();
        for (int i = 0; i < given.length; i++) {
            sorted[next[ouOf[i]]++] = given[i];
        }
        Comparator<T> byId = Comparator.comparing(kind.id);
        for (int ou = 0; ou < ous.size(); ou++) {
            Arrays.sort(sorted, firstOf[ou], firstOf[ou + 1], byId);
        }
        int[] slotAt = slots.numbers(sorted, kind.id);
        int[] positions = new int[slots.size()];
        Arrays.fill(positions, -1);
        for (int p = 0; p < slotAt.length; p++) {
            positions[slotAt[p]] = p;
        }
        return new OuOrder<>(kind, ous, sorted, slots, positions, slotAt, firstOf);
    }

    int size() {
        return sorted.length;
    }

    T at(int position) {
        return sorted[position];
    }

    int find(String id) {
        int slot = slots.find(id);
        return slot < 0 ? -1 : positions[slot];
    }

    /** Where each slot is found by its id. */
    IdIndex slots() {
        return slots;
    }

    /** The position of what has this slot; -1 where it is not here any more. */
    int ofSlot(int slot) {
        return positions[slot];
    }

    List<T> all() {
        return Collections.unmodifiableList(Arrays.asList(sorted));
    }

    int from(int ouPosition) {
        return firstOf[ouPosition];
    }

    int to(int ouPosition) {
        return firstOf[ous.end(ouPosition)];
    }

    int ownTo(int ouPosition) {
        return firstOf[ouPosition + 1];
    }

    /**
     * The same order with some replaced by their newer selves, in another OU too.
     *
     * @param newer known ids, each once
     */
    OuOrder<T> with(Collection<T> newer) {
        T[] copy = sorted.clone();
        List<T> moving = new ArrayList<>();
        for (T one : newer) {
            int position = find(kind.id.apply(one));
            if (!Objects.equals(kind.ou.apply(sorted[position]), kind.ou.apply(one))) {
                moving.add(one);
            }
            copy[position] = one;
        }
        return moving.isEmpty() ? new OuOrder<>(kind, ous, copy, slots, positions, slotAt, firstOf) : moved(copy, moving);
    }

    /** The same things where other OUs put them; what was in an OU that is no more stands nowhere. */
    OuOrder<T> under(OuTree newer) {
        if (!newer.root().id().equals(ous.root().id())) {
            // What has no OU goes to the new root, and what is in the old one does not.
            return of(newer, sorted, slots, kind);
        }
        Laying laying = new Laying(newer, sorted);
        for (int ou = 0; ou < newer.size(); ou++) {
            Ou known = ous.find(newer.at(ou).id());
            if (known != null) {
                int old = ous.position(known.id());
                laying.take(firstOf[old], firstOf[old + 1]);
            }
            laying.end(ou);
        }
        return laying.done();
    }

    /** @param held what stands at each position of this order, those that move included */
    private OuOrder<T> moved(T[] held, List<T> moving) {
        int[] leaving = moving.stream().mapToInt(one -> find(kind.id.apply(one))).sorted().toArray();
        Map<Integer, List<T>> arriving = new HashMap<>();
        moving.stream().sorted(Comparator.comparing(kind.id)).forEach(one -> arriving
                .computeIfAbsent(ous.position(kind.ou.apply(one)), ou -> new ArrayList<>()).add(one));
        Laying laying = new Laying(ous, held);
        int left = 0;
        for (int ou = 0; ou < ous.size(); ou++) {
            int at = firstOf[ou];
            for (T one : arriving.getOrDefault(ou, List.of())) {
                int before = before(kind.id.apply(one), at, firstOf[ou + 1]);
                left = laying.takeWithout(at, before, leaving, left);
                int from = find(kind.id.apply(one));
                laying.take(from, from + 1);
                at = before;
            }
            left = laying.takeWithout(at, firstOf[ou + 1], leaving, left);
            laying.end(ou);
        }
        return laying.done();
    }

    /** The first position of the run whose id comes after this one. */
    private int before(String id, int from, int to) {
        int low = from;
        int high = to;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (kind.id.apply(sorted[middle]).compareTo(id) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** Lays runs of this order one after the other into a new one. */
    private final class Laying {

        private final OuTree tree;
        private final T[] from;
        private final T[] next = sorted.clone();
        private final int[] nextSlotAt = new int[sorted.length];
        private final int[] nextFirstOf;
        private int n;

        Laying(OuTree tree, T[] from) {
            this.tree = tree;
            this.from = from;
            this.nextFirstOf = new int[tree.size() + 1];
        }

        void take(int start, int end) {
            System.arraycopy(from, start, next, n, end - start);
            System.arraycopy(slotAt, start, nextSlotAt, n, end - start);
            n += end - start;
        }

        /**
         * All but those that leave.
         *
         * @param left how many of those have been passed over
         * @return how many have been passed over now
         */
        int takeWithout(int start, int end, int[] leaving, int left) {
            int at = start;
            int passed = left;
            while (passed < leaving.length && leaving[passed] < end) {
                take(at, leaving[passed]);
                at = leaving[passed++] + 1;
            }
            take(at, end);
            return passed;
        }

        /** The OU at this position has all that is its own. */
        void end(int ou) {
            nextFirstOf[ou + 1] = n;
        }

        OuOrder<T> done() {
            int[] nextPositions = new int[positions.length];
            Arrays.fill(nextPositions, -1);
            for (int p = 0; p < n; p++) {
                nextPositions[nextSlotAt[p]] = p;
            }
            return new OuOrder<>(kind, tree, n == next.length ? next : Arrays.copyOf(next, n), slots, nextPositions,
                    Arrays.copyOf(nextSlotAt, n), nextFirstOf);
        }
    }

    /** The positions, ascending, at which another object stands than in an order with the same positions. */
    int[] differingFrom(OuOrder<T> other) {
        T[] mine = sorted;
        T[] theirs = other.sorted;
        int[] differing = new int[16];
        int n = 0;
        for (int p = 0; p < mine.length; p++) {
            if (mine[p] != theirs[p]) {
                differing = n == differing.length ? Arrays.copyOf(differing, n * 2) : differing;
                differing[n++] = p;
            }
        }
        return Arrays.copyOf(differing, n);
    }

    /** Whether every position is of the same OU in both, which are of the same tree. */
    boolean sameOusAs(OuOrder<T> other) {
        return ous == other.ous && Arrays.equals(firstOf, other.firstOf);
    }

    boolean samePositionsAs(OuOrder<T> other) {
        if (positions == other.positions) {
            return true;
        }
        boolean same = sorted.length == other.sorted.length;
        for (int p = 0; same && p < sorted.length; p++) {
            same = sorted[p] == other.sorted[p] || kind.id.apply(sorted[p]).equals(kind.id.apply(other.sorted[p]));
        }
        return same;
    }
}
