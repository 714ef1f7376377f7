package rivo.core.estate;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Finds where a graph leads back to itself. An edge to itself is not looked at: whoever forbids those says so by itself.
 */
public final class Cycles {

    private Cycles() {
    }

    /**
     * One cycle for each set of nodes that all lead to each other: its nodes in order, each leading to the next and the
     * last to the first. Empty when there is none. Costs one walk over nodes and edges, without recursion.
     */
    public static <T> List<List<T>> in(Collection<T> nodes, Function<T, ? extends Collection<T>> next) {
        List<List<T>> cycles = new ArrayList<>();
        Set<T> done = new HashSet<>();
        for (T start : nodes) {
            if (!done.contains(start)) {
                walk(start, next, done, cycles);
            }
        }
        return cycles;
    }

    /** Depth first; the path holds the nodes from the start to where we are, in order. */
    private static <T> void walk(T start, Function<T, ? extends Collection<T>> next, Set<T> done,
            List<List<T>> cycles) {
        LinkedHashSet<T> path = new LinkedHashSet<>(List.of(start));
        Deque<Iterator<? extends T>> open = new ArrayDeque<>();
        Map<T, Boolean> inCycle = new HashMap<>();
        open.push(next.apply(start).iterator());
        Deque<T> nodes = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            if (!open.peek().hasNext()) {
                open.pop();
                T left = nodes.pop();
                path.remove(left);
                done.add(left);
                continue;
            }
            T to = open.peek().next();
            if (path.contains(to)) {
                List<T> cycle = from(path, to);
                if (cycle.size() > 1 && cycle.stream().noneMatch(inCycle::containsKey)) {
                    cycles.add(cycle);
                    cycle.forEach(n -> inCycle.put(n, true));
                }
            } else if (!done.contains(to)) {
                path.add(to);
                nodes.push(to);
                open.push(next.apply(to).iterator());
            }
        }
    }

    private static <T> List<T> from(Collection<T> path, T first) {
        List<T> cycle = new ArrayList<>();
        for (T node : path) {
            if (!cycle.isEmpty() || node.equals(first)) {
                cycle.add(node);
            }
        }
        return List.copyOf(cycle);
    }
}
