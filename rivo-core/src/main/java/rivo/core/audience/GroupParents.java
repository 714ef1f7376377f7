package rivo.core.audience;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;

/**
 * From a device, a person or a group up to the groups that hold it, in the order of the groups. Immutable.
 *
 * <p><b>How.</b> Which groups list a device is asked of each group's set. A map from members to groups would be quicker,
 * and larger than everything else: there may be tens of millions of memberships.
 */
final class GroupParents {

    private final Estate estate;
    private final String[] ids;
    /** What each of them lists itself. */
    private final Groups.Members[] lists;
    private final Map<String, Groups.Members> byId = new HashMap<>();
    private final Map<String, List<String>> ofGroups = new HashMap<>();

    /**
     * @param nested the groups that a group lists itself
     * @param listed the devices and people that it lists itself
     */
    GroupParents(Estate estate, Function<String, List<String>> nested, Function<String, Groups.Members> listed) {
        this.estate = estate;
        this.ids = estate.groups().keySet().toArray(String[]::new);
        this.lists = new Groups.Members[ids.length];
        for (int i = 0; i < ids.length; i++) {
            String id = ids[i];
            lists[i] = listed.apply(id);
            byId.put(id, lists[i]);
            nested.apply(id).forEach(held -> ofGroups.computeIfAbsent(held, h -> new ArrayList<>(1)).add(id));
        }
    }

    /** The ids of all groups that hold the member, nested ones too; those that list it come first. */
    Set<String> holding(Target member) {
        Set<String> holding = new LinkedHashSet<>(listing(member));
        Deque<String> open = new ArrayDeque<>(holding);
        while (!open.isEmpty()) {
            for (String group : listing(Target.group(open.pop()))) {
                if (holding.add(group)) {
                    open.add(group);
                }
            }
        }
        return holding;
    }

    /** How a member belongs to a group: from that group down to one that lists it, the shortest way. Empty when not at all. */
    List<String> chain(String group, Target member) {
        if (lists(group, member)) {
            return List.of(group);
        }
        Map<String, String> cameFrom = new HashMap<>();
        Deque<String> open = new ArrayDeque<>(listing(member));
        open.forEach(id -> cameFrom.put(id, ""));
        while (!open.isEmpty() && !cameFrom.containsKey(group)) {
            String from = open.remove();
            for (String holder : listing(Target.group(from))) {
                if (cameFrom.putIfAbsent(holder, from) == null) {
                    open.add(holder);
                }
            }
        }
        List<String> chain = new ArrayList<>();
        String at = cameFrom.containsKey(group) ? group : "";
        while (!at.isEmpty()) {
            chain.add(at);
            at = cameFrom.getOrDefault(at, "");
        }
        return chain;
    }

    /** The groups that list the member itself. */
    private List<String> listing(Target member) {
        if (member.kind() == Target.Kind.GROUP) {
            return ofGroups.getOrDefault(member.id(), List.of());
        }
        boolean device = member.kind() == Target.Kind.DEVICE;
        int position = position(member);
        List<String> found = new ArrayList<>();
        for (int i = 0; position >= 0 && i < ids.length; i++) {
            if ((device ? lists[i].devices() : lists[i].users()).contains(position)) {
                found.add(ids[i]);
            }
        }
        return found;
    }

    private boolean lists(String group, Target member) {
        if (member.kind() == Target.Kind.GROUP) {
            return listing(member).contains(group);
        }
        Groups.Members listed = byId.get(group);
        Positions side = listed == null ? Positions.NONE
                : member.kind() == Target.Kind.DEVICE ? listed.devices() : listed.users();
        int position = position(member);
        return position >= 0 && side.contains(position);
    }

    private int position(Target member) {
        return member.kind() == Target.Kind.DEVICE ? estate.devices().positionOf(member.id())
                : estate.users().positionOf(member.id());
    }
}
