package rivo.core.audience;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Groups that hold each other in a circle form one cycle, a group that is in no circle one by itself; what a cycle holds
 * stands before it. Immutable.
 *
 * <p><b>How.</b> Tarjan's strongly connected components, without recursion: chains may be long.
 */
final class GroupCycles {

    /** For each group those that it lists itself. */
    private final Map<String, List<String>> nested;
    private final Map<String, Integer> cycleOf = new HashMap<>();
    private final List<List<String>> cycles = new ArrayList<>();

    /** @param nested for each group those that it lists itself, each of which is a key too */
    GroupCycles(Map<String, List<String>> nested) {
        this.nested = nested;
        Search search = new Search();
        nested.keySet().forEach(search::from);
    }

    int size() {
        return cycles.size();
    }

    /** The cycle that a group is in, or null when there is no such group. */
    @Nullable Integer of(String group) {
        return cycleOf.get(group);
    }

    /** The groups of a cycle. */
    List<String> groups(int cycle) {
        return cycles.get(cycle);
    }

    /** The other cycles that this one holds directly; all of them stand before it. */
    Set<Integer> below(int cycle) {
        Set<Integer> below = new LinkedHashSet<>();
        for (String group : cycles.get(cycle)) {
            for (String member : Objects.requireNonNull(nested.get(group))) {
                Integer held = Objects.requireNonNull(cycleOf.get(member));
                if (held != cycle) {
                    below.add(held);
                }
            }
        }
        return below;
    }

    private final class Search {

        private final Map<String, Integer> index = new HashMap<>();
        private final Map<String, Integer> low = new HashMap<>();
        private final Deque<String> path = new ArrayDeque<>();
        private final Set<String> onPath = new HashSet<>();

        private record Step(String group, Iterator<String> members) {
        }

        void from(String start) {
            if (index.containsKey(start)) {
                return;
            }
            Deque<Step> open = new ArrayDeque<>();
            open.push(enter(start));
            while (!open.isEmpty()) {
                Step step = open.peek();
                if (!step.members().hasNext()) {
                    open.pop();
                    leave(step.group());
                    if (!open.isEmpty()) {
                        low.merge(open.peek().group(), Objects.requireNonNull(low.get(step.group())), Math::min);
                    }
                    continue;
                }
                String member = step.members().next();
                if (!index.containsKey(member)) {
                    open.push(enter(member));
                } else if (onPath.contains(member)) {
                    low.merge(step.group(), Objects.requireNonNull(index.get(member)), Math::min);
                }
            }
        }

        private Step enter(String id) {
            index.put(id, index.size());
            low.put(id, Objects.requireNonNull(index.get(id)));
            path.push(id);
            onPath.add(id);
            return new Step(id, Objects.requireNonNull(nested.get(id)).iterator());
        }

        private void leave(String id) {
            if (!low.get(id).equals(index.get(id))) {
                return;
            }
            List<String> cycle = new ArrayList<>();
            String member;
            do {
                member = path.pop();
                onPath.remove(member);
                cycleOf.put(member, cycles.size());
                cycle.add(member);
            } while (!member.equals(id));
            cycles.add(cycle);
        }
    }
}
