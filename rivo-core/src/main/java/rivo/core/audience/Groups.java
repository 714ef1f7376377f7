package rivo.core.audience;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Target;

/**
 * What the groups hold, nested ones included. Immutable but for a cache; safe for any thread.
 *
 * <p><b>How.</b> Groups that hold each other in a circle form one <b>knot</b> and hold the same. Knots come in an order
 * in which a knot stands after those it holds, so that its members are its own and theirs. What a knot holds is worked
 * out when it is first asked for.
 */
final class Groups {

    /** What a group holds. */
    record Members(Positions devices, Positions users) {
    }

    private final Estate estate;
    private final Map<String, Integer> knotOf = new HashMap<>();
    /** For each knot its groups; what a knot holds stands before it. */
    private final List<List<Group>> knots = new ArrayList<>();
    private final Map<Integer, Members> members = new ConcurrentHashMap<>();
    private volatile @Nullable Map<Target, List<String>> directly;

    Groups(Estate estate) {
        this.estate = estate;
        new Knots().find();
    }

    /** The same groups, with the same members at the same places, of a newer estate. */
    Groups of(Estate newer) {
        return new Groups(newer, this);
    }

    private Groups(Estate newer, Groups same) {
        this.estate = newer;
        this.knotOf.putAll(same.knotOf);
        this.knots.addAll(same.knots);
        this.members.putAll(same.members);
        this.directly = same.directly;
    }

    /**
     * The groups of a newer estate, keeping what cannot have changed: the members of every knot that no changed group
     * is in or below. To be called only when devices and people have kept their positions.
     */
    static Groups after(Groups before, Estate newer) {
        Groups groups = new Groups(newer);
        Set<Integer> changed = new HashSet<>();
        for (int knot = 0; knot < groups.knots.size(); knot++) {
            List<Group> own = groups.knots.get(knot);
            Integer old = before.knotOf.get(own.get(0).id());
            boolean same = old != null && new HashSet<>(before.knots.get(old)).equals(new HashSet<>(own))
                    && groups.below(knot).stream().noneMatch(changed::contains);
            if (!same) {
                changed.add(knot);
            } else if (before.members.containsKey(old)) {
                groups.members.put(knot, Objects.requireNonNull(before.members.get(old)));
            }
        }
        return groups;
    }

    /** What a known group holds. */
    Members of(String group) {
        int knot = Objects.requireNonNull(knotOf.get(group));
        Members held = members.get(knot);
        return held == null ? compute(knot) : held;
    }

    private Members compute(int asked) {
        Set<Integer> needed = new HashSet<>(Set.of(asked));
        Deque<Integer> open = new ArrayDeque<>(needed);
        while (!open.isEmpty()) {
            for (int below : below(open.pop())) {
                if (!members.containsKey(below) && needed.add(below)) {
                    open.push(below);
                }
            }
        }
        needed.stream().sorted().forEach(knot -> members.computeIfAbsent(knot, this::gather));
        return Objects.requireNonNull(members.get(asked));
    }

    private Members gather(int knot) {
        PositionsBuilder devices = new PositionsBuilder(0, estate.devices().size());
        PositionsBuilder users = new PositionsBuilder(0, estate.users().size());
        for (Group group : knots.get(knot)) {
            for (Target member : group.members()) {
                if (member.kind() == Target.Kind.DEVICE) {
                    devices.add(estate.devices().positionOf(member.id()));
                } else if (member.kind() == Target.Kind.USER) {
                    users.add(estate.users().positionOf(member.id()));
                }
            }
        }
        for (int below : below(knot)) {
            Members held = Objects.requireNonNull(members.get(below));
            devices.addAll(held.devices());
            users.addAll(held.users());
        }
        return new Members(devices.build(), users.build());
    }

    /** The other knots that this one holds directly. */
    private Set<Integer> below(int knot) {
        Set<Integer> below = new LinkedHashSet<>();
        for (Group group : knots.get(knot)) {
            for (Target member : group.members()) {
                Integer held = member.kind() == Target.Kind.GROUP ? knotOf.get(member.id()) : null;
                if (held != null && held != knot) {
                    below.add(held);
                }
            }
        }
        return below;
    }

    /** The ids of all groups that hold this device or user, nested ones too. */
    Set<String> holding(Target member) {
        Map<Target, List<String>> parents = directly();
        Set<String> holding = new LinkedHashSet<>();
        Deque<Target> open = new ArrayDeque<>(List.of(member));
        while (!open.isEmpty()) {
            for (String group : parents.getOrDefault(open.pop(), List.of())) {
                if (holding.add(group)) {
                    open.add(Target.group(group));
                }
            }
        }
        return holding;
    }

    /**
     * How a device or user belongs to a group: the groups from this one down to the one that lists it. Empty when it does
     * not belong.
     */
    List<Group> chain(String group, Target member) {
        Map<Target, List<String>> parents = directly();
        Map<String, Target> cameFrom = new HashMap<>();
        Deque<Target> open = new ArrayDeque<>(List.of(member));
        while (!open.isEmpty() && !cameFrom.containsKey(group)) {
            Target from = open.poll();
            for (String holder : parents.getOrDefault(from, List.of())) {
                if (cameFrom.putIfAbsent(holder, from) == null) {
                    open.add(Target.group(holder));
                }
            }
        }
        List<Group> chain = new ArrayList<>();
        Target at = cameFrom.containsKey(group) ? Target.group(group) : member;
        while (at.kind() == Target.Kind.GROUP) {
            chain.add(Objects.requireNonNull(estate.groups().get(at.id())));
            at = Objects.requireNonNull(cameFrom.get(at.id()));
        }
        return chain;
    }

    /** For each member the groups that list it. */
    private Map<Target, List<String>> directly() {
        Map<Target, List<String>> known = directly;
        if (known == null) {
            known = new HashMap<>();
            for (Group group : estate.groups().values()) {
                for (Target member : group.members()) {
                    known.computeIfAbsent(member, m -> new ArrayList<>(1)).add(group.id());
                }
            }
            directly = known;
        }
        return known;
    }

    /** Tarjan's strongly connected components, without recursion: knots come out with what they hold before them. */
    private final class Knots {

        private final Map<String, Integer> index = new HashMap<>();
        private final Map<String, Integer> low = new HashMap<>();
        private final Deque<String> path = new ArrayDeque<>();
        private final Set<String> onPath = new HashSet<>();

        void find() {
            estate.groups().keySet().forEach(id -> {
                if (!index.containsKey(id)) {
                    walk(id);
                }
            });
        }

        private record Step(String group, java.util.Iterator<Target> members) {
        }

        private void walk(String start) {
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
                Target member = step.members().next();
                if (member.kind() != Target.Kind.GROUP) {
                    continue;
                }
                if (!index.containsKey(member.id())) {
                    open.push(enter(member.id()));
                } else if (onPath.contains(member.id())) {
                    low.merge(step.group(), Objects.requireNonNull(index.get(member.id())), Math::min);
                }
            }
        }

        private Step enter(String id) {
            index.put(id, index.size());
            low.put(id, Objects.requireNonNull(index.get(id)));
            path.push(id);
            onPath.add(id);
            return new Step(id, Objects.requireNonNull(estate.groups().get(id)).members().iterator());
        }

        private void leave(String id) {
            if (!low.get(id).equals(index.get(id))) {
                return;
            }
            List<Group> knot = new ArrayList<>();
            String member;
            do {
                member = path.pop();
                onPath.remove(member);
                knotOf.put(member, knots.size());
                knot.add(Objects.requireNonNull(estate.groups().get(member)));
            } while (!member.equals(id));
            knots.add(knot);
        }
    }
}
