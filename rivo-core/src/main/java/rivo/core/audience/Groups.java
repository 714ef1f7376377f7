package rivo.core.audience;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Target;
import rivo.core.estate.Users;

/**
 * What the groups hold, nested ones included. Immutable but for a cache; safe for any thread.
 *
 * <p><b>How.</b> Groups that hold each other in a circle form one <b>cycle</b> and hold the same. Cycles come in an order
 * in which a cycle stands after those it holds, so that its members are its own and theirs. What a group lists, and what a
 * cycle holds, is worked out when it is first asked for, and goes along to newer estates as long as the group is the same:
 * there may be tens of millions of memberships, and finding each by its id is what costs.
 */
final class Groups {

    /** What a group holds. */
    record Members(Positions devices, Positions users) {

        static final Members NONE = new Members(Positions.NONE, Positions.NONE);

        /** Whether the device or user at this position is in it; none is at -1. */
        boolean has(Target.Kind kind, int position) {
            return position >= 0 && (kind == Target.Kind.DEVICE ? devices : users).contains(position);
        }

        /** The same devices and people where they are now. */
        Members at(Moves movedDevices, Moves movedUsers) {
            return movedDevices.areNone() && movedUsers.areNone() ? this
                    : new Members(movedDevices.of(devices), movedUsers.of(users));
        }
    }

    private final Estate estate;
    /** For each group those that it lists itself. */
    private final Map<String, List<String>> nested;
    private final GroupCycles cycles;
    /** What each group lists itself. */
    private final Map<String, Members> listed = new ConcurrentHashMap<>();
    /** What each cycle holds. */
    private final Map<Integer, Members> members = new ConcurrentHashMap<>();

    Groups(Estate estate) {
        this(estate, Blocks.sideBySide(memberships(estate), estate.groups().values()).collect(Collectors.toMap(Group::id, estate::groupsIn)));
    }

    private Groups(Estate estate, Map<String, List<String>> nested) {
        this.estate = estate;
        this.nested = nested;
        this.cycles = new GroupCycles(nested);
    }

    private static int memberships(Estate estate) {
        return (int) Math.min(Integer.MAX_VALUE, estate.groups().values().stream().mapToLong(g -> g.members().size()).sum());
    }

    /** The same groups, with the same members at the same places, of a newer estate. */
    Groups of(Estate newer) {
        Groups groups = new Groups(newer, nested);
        groups.listed.putAll(listed);
        groups.members.putAll(members);
        return groups;
    }

    /**
     * The groups of a newer estate, keeping what cannot have changed: what every group lists that is the same, and the
     * members of every cycle that no changed group is in or below.
     */
    static Groups after(Groups before, Estate newer, Moves devices, Moves users) {
        Map<String, List<String>> nested = new HashMap<>();
        newer.groups().values().forEach(group -> nested.put(group.id(), before.has(group)
                ? Objects.requireNonNull(before.nested.get(group.id())) : newer.groupsIn(group)));
        Groups groups = new Groups(newer, nested);
        if (!devices.haveNew() && !users.haveNew()) {
            groups.keep(before, devices, users);
        }
        return groups;
    }

    private boolean has(Group group) {
        Group known = estate.groups().get(group.id());
        return known == group || known != null && known.members().equals(group.members());
    }

    /** The ids of the groups that may hold something else than in another estate: they, or some below, list something else. */
    Set<String> changedSince(Groups other) {
        Set<String> changed = new HashSet<>();
        for (int cycle = 0; cycle < cycles.size(); cycle++) {
            List<String> own = cycles.groups(cycle);
            if (!own.stream().allMatch(id -> other.has(group(id)))
                    || cycles.below(cycle).stream().anyMatch(below -> changed.contains(cycles.groups(below).get(0)))) {
                changed.addAll(own);
            }
        }
        return changed;
    }

    private void keep(Groups before, Moves devices, Moves users) {
        Set<String> changed = changedSince(before);
        for (int cycle = 0; cycle < cycles.size(); cycle++) {
            List<String> own = cycles.groups(cycle);
            Members held = changed.contains(own.get(0)) ? null : before.known(own.get(0));
            Members now = held == null ? null : held.at(devices, users);
            if (now != null) {
                members.put(cycle, now);
            }
            for (String id : own) {
                Members lists = before.has(group(id)) ? before.listed.get(id) : null;
                if (lists != null) {
                    listed.put(id, now != null && lists == held ? now : lists.at(devices, users));
                }
            }
        }
    }

    private Group group(String id) {
        return Objects.requireNonNull(estate.groups().get(id));
    }

    /** What a known group holds. */
    Members of(String group) {
        int cycle = Objects.requireNonNull(cycles.of(group));
        Members held = members.get(cycle);
        return held == null ? compute(cycle) : held;
    }

    /** Whether what a group holds has been worked out, and is the very same in both. */
    boolean sharesWith(Groups other, String group) {
        Members mine = known(group);
        return mine != null && mine == other.known(group);
    }

    private @Nullable Members known(String group) {
        Integer cycle = cycles.of(group);
        return cycle == null ? null : members.get(cycle);
    }

    private Members compute(int asked) {
        Set<Integer> needed = new HashSet<>(Set.of(asked));
        Deque<Integer> open = new ArrayDeque<>(needed);
        while (!open.isEmpty()) {
            for (int below : cycles.below(open.pop())) {
                if (!members.containsKey(below) && needed.add(below)) {
                    open.push(below);
                }
            }
        }
        needed.stream().sorted().forEach(cycle -> members.computeIfAbsent(cycle, this::gather));
        return Objects.requireNonNull(members.get(asked));
    }

    private Members gather(int cycle) {
        Set<Integer> below = cycles.below(cycle);
        if (cycles.groups(cycle).size() == 1 && below.isEmpty()) {
            return listed(cycles.groups(cycle).get(0));
        }
        List<Members> all = new ArrayList<>();
        cycles.groups(cycle).forEach(id -> all.add(listed(id)));
        below.forEach(held -> all.add(Objects.requireNonNull(members.get(held))));
        return new Members(Positions.union(all.stream().map(Members::devices).toList()),
                Positions.union(all.stream().map(Members::users).toList()));
    }

    /** What a known group lists itself: no groups. */
    private Members listed(String group) {
        return listed.computeIfAbsent(group, id -> {
            PositionsBuilder devices = new PositionsBuilder(0, estate.devices().size());
            PositionsBuilder users = new PositionsBuilder(0, estate.users().size());
            estate.listed(group(id), devices::add, users::add);
            return new Members(devices.build(), users.build());
        });
    }

    /** The ids of all groups that hold this device or user, nested ones too. Costs a probe for each group. */
    Set<String> holding(Target member) {
        int position = position(member);
        Set<String> holding = new LinkedHashSet<>();
        for (String id : estate.groups().keySet()) {
            if (of(id).has(member.kind(), position)) {
                holding.add(id);
            }
        }
        return holding;
    }

    /**
     * How a device or user belongs to a group: the groups from this one down to the one that lists it, the shortest way.
     * Empty when it does not belong. Costs a probe for each group on the way down.
     */
    List<Group> chain(String group, Target member) {
        return ways(group, member, 1).stream().findFirst().orElse(List.of());
    }

    /**
     * Every way in which a device or user belongs to a group: for each group at or below it that lists the member, the groups from this one down
     * to that one, the shortest way. The shortest first; none when it does not belong.
     */
    List<List<Group>> ways(String group, Target member) {
        return ways(group, member, Integer.MAX_VALUE);
    }

    private List<List<Group>> ways(String group, Target member, int most) {
        int position = position(member);
        Map<String, String> holder = new HashMap<>();
        Deque<String> open = new ArrayDeque<>();
        if (of(group).has(member.kind(), position)) {
            open.add(group);
            holder.put(group, "");
        }
        List<List<Group>> ways = new ArrayList<>();
        while (!open.isEmpty() && ways.size() < most) {
            String at = open.remove();
            if (listed(at).has(member.kind(), position)) {
                ways.add(upFrom(at, holder));
            }
            for (String below : Objects.requireNonNull(nested.get(at))) {
                if (of(below).has(member.kind(), position) && holder.putIfAbsent(below, at) == null) {
                    open.add(below);
                }
            }
        }
        return List.copyOf(ways);
    }

    /** What a known group is made of: what it lists itself, and the groups that it lists. */
    GroupMakeup makeup(String group) {
        Members own = listed(group);
        List<String> circle = cycles.groups(Objects.requireNonNull(cycles.of(group)));
        List<GroupMakeup.Part> parts = new ArrayList<>();
        for (String below : Objects.requireNonNull(nested.get(group))) {
            Members held = of(below);
            parts.add(new GroupMakeup.Part(group(below), new DeviceSet(held.devices()), held.users().size(), circle.contains(below)));
        }
        return new GroupMakeup(new DeviceSet(own.devices()), own.users().size(), parts, nested.entrySet().stream()
                .filter(each -> each.getValue().contains(group)).map(each -> group(each.getKey())).toList(),
                circle.size() < 2 ? List.of() : circle.stream().filter(id -> !id.equals(group)).map(this::group).toList());
    }

    private List<Group> upFrom(String lowest, Map<String, String> holder) {
        LinkedList<Group> chain = new LinkedList<>();
        for (String id = lowest; !id.isEmpty(); id = Objects.requireNonNull(holder.get(id))) {
            chain.addFirst(group(id));
        }
        return List.copyOf(chain);
    }

    /** Of a device or user; -1 when there is none of this id. */
    private int position(Target member) {
        return member.kind() == Target.Kind.DEVICE ? estate.devices().positionOf(member.id())
                : estate.users().positionOf(member.id());
    }
}
