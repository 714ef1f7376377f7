package rivo.core.estate;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * The OUs as a tree, laid out in <b>preorder</b>: an OU stands before everything below it, and an OU with all that is
 * below it is one run of positions. Siblings stand in the order of their names. The root has position 0 and depth 0.
 *
 * <p>Immutable. Looking an OU up by id or position is one step; an ancestor test is two comparisons.
 */
public final class OuTree {

    private final List<Ou> preorder;
    private final Map<String, Integer> positions;
    private final int[] parents;
    private final int[] depths;
    private final int[] ends;
    private final List<Integer> fenced;
    /** The positions of the OUs at or below a fenced one. */
    private final BitSet behindFence = new BitSet();

    private OuTree(List<Ou> preorder, Map<String, Integer> positions, int[] parents, int[] depths, int[] ends) {
        this.preorder = preorder;
        this.positions = positions;
        this.parents = parents;
        this.depths = depths;
        this.ends = ends;
        this.fenced = IntStream.range(0, preorder.size()).filter(p -> preorder.get(p).fenced()).boxed().toList();
        this.fenced.forEach(fence -> behindFence.set(fence, ends[fence]));
    }

    /**
     * Lays the OUs out.
     *
     * @param ous one root, and parents that lead to it; anything else is undefined ({@link EstateChecks} looks)
     */
    static OuTree of(Collection<Ou> ous) {
        List<Ou> preorder = preorder(ous);
        int n = preorder.size();
        int[] parents = new int[n];
        int[] depths = new int[n];
        int[] ends = new int[n];
        Map<String, Integer> positions = new HashMap<>();
        for (int p = 0; p < n; p++) {
            Ou ou = preorder.get(p);
            positions.put(ou.id(), p);
            parents[p] = ou.parent() == null ? -1 : positions.get(ou.parent());
            depths[p] = parents[p] < 0 ? 0 : depths[parents[p]] + 1;
        }
        for (int p = n - 1; p >= 0; p--) {
            ends[p] = Math.max(ends[p], p + 1);
            if (parents[p] >= 0) {
                ends[parents[p]] = Math.max(ends[parents[p]], ends[p]);
            }
        }
        return new OuTree(preorder, Map.copyOf(positions), parents, depths, ends);
    }

    public int size() {
        return preorder.size();
    }

    public Ou root() {
        return preorder.get(0);
    }

    /** All OUs, in preorder. */
    public List<Ou> all() {
        return preorder;
    }

    /** @throws IndexOutOfBoundsException when there is no such position */
    public Ou at(int position) {
        return preorder.get(position);
    }

    public @Nullable Ou find(String id) {
        Integer position = positions.get(id);
        return position == null ? null : preorder.get(position);
    }

    /** The position of a known OU; the root's for null, since what has no OU is below the root only. */
    public int position(@Nullable String id) {
        if (id == null) {
            return 0;
        }
        Integer position = positions.get(id);
        if (position == null) {
            throw new IllegalArgumentException("no OU " + id);
        }
        return position;
    }

    /** The positions of the fenced OUs, from the root down. */
    public List<Integer> fenced() {
        return fenced;
    }

    /** Whether the OU at this position, or one above it, is fenced. */
    public boolean isFenced(int position) {
        return behindFence.get(position);
    }

    /** The position of the parent, or -1 for the root. */
    public int parent(int position) {
        return parents[position];
    }

    public int depth(int position) {
        return depths[position];
    }

    /** The position after the last OU that is this one or below it. */
    public int end(int position) {
        return ends[position];
    }

    /** Whether {@code inner} is {@code outer} or below it. */
    public boolean isAtOrBelow(int inner, int outer) {
        return outer <= inner && inner < ends[outer];
    }

    /** From the root to the OU itself. */
    public List<Ou> path(int position) {
        Deque<Ou> path = new ArrayDeque<>();
        for (int p = position; p >= 0; p = parents[p]) {
            path.addFirst(preorder.get(p));
        }
        return List.copyOf(path);
    }

    private static List<Ou> preorder(Collection<Ou> ous) {
        Map<String, List<Ou>> children = new HashMap<>();
        Deque<Ou> open = new ArrayDeque<>();
        for (Ou ou : ous) {
            if (ou.parent() == null) {
                open.push(ou);
            } else {
                children.computeIfAbsent(ou.parent(), p -> new ArrayList<>()).add(ou);
            }
        }
        Comparator<Ou> byName = Comparator.comparing(Ou::name).thenComparing(Ou::id);
        List<Ou> preorder = new ArrayList<>();
        while (!open.isEmpty()) {
            Ou ou = open.pop();
            preorder.add(ou);
            children.getOrDefault(ou.id(), List.of()).stream().sorted(byName.reversed()).forEach(open::push);
        }
        return List.copyOf(preorder);
    }
}
