package rivo.core.estate;

import java.util.Arrays;
import java.util.Collection;
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
 * each) and shares everything else.
 */
final class OuOrder<T> {

    private final OuTree ous;
    private final T[] sorted;
    private final Map<String, Integer> positions;
    /** For each OU position, the first of that OU or of a later one; one entry more than OUs. */
    private final int[] firstOf;

    private OuOrder(OuTree ous, T[] sorted, Map<String, Integer> positions, int[] firstOf) {
        this.ous = ous;
        this.sorted = sorted;
        this.positions = positions;
        this.firstOf = firstOf;
    }

    /** @param array the things, in an array of their own, which becomes this order's */
    static <T> OuOrder<T> of(OuTree ous, T[] array, Function<T, String> id, Function<T, @Nullable String> ou) {
        Comparator<T> byOu = Comparator.comparingInt(one -> ous.position(ou.apply(one)));
        Arrays.sort(array, byOu.thenComparing(id));
        Map<String, Integer> positions = new HashMap<>(array.length * 2);
        int[] firstOf = new int[ous.size() + 1];
        int next = 0;
        for (int p = 0; p < array.length; p++) {
            positions.put(id.apply(array[p]), p);
            while (next <= ous.position(ou.apply(array[p]))) {
                firstOf[next++] = p;
            }
        }
        Arrays.fill(firstOf, next, firstOf.length, array.length);
        return new OuOrder<>(ous, array, positions, firstOf);
    }

    int size() {
        return sorted.length;
    }

    T at(int position) {
        return sorted[position];
    }

    int find(String id) {
        return positions.getOrDefault(id, -1);
    }

    List<T> all() {
        return java.util.Collections.unmodifiableList(Arrays.asList(sorted));
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

    /** The same order with some replaced, each of which keeps its id and OU. */
    OuOrder<T> with(Collection<T> newer, Function<T, String> id) {
        T[] copy = sorted.clone();
        newer.forEach(one -> copy[Objects.requireNonNull(positions.get(id.apply(one)))] = one);
        return new OuOrder<>(ous, copy, positions, firstOf);
    }

    boolean samePositionsAs(OuOrder<?> other) {
        return positions == other.positions || positions.equals(other.positions);
    }
}
