package rivo.core.estate;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;

/**
 * The groups of an estate, and what each lists itself, by the numbers that devices and people have in their {@link IdIndex}. There may be tens of
 * millions of memberships, and finding each by its id is what costs: it is done once, and holds as long as the group and the indexes are the same,
 * wherever devices and people move. Immutable but for a cache, which is shared with other states of the estate; safe for any thread.
 */
final class ListedGroups {

    private record Known(Group group, Listing listing) {
    }

    private final Map<String, Group> byId;
    private final IdIndex devices;
    private final IdIndex users;
    private final Map<String, Known> known;

    private ListedGroups(Map<String, Group> byId, IdIndex devices, IdIndex users, Map<String, Known> known) {
        this.byId = byId;
        this.devices = devices;
        this.users = users;
        this.known = known;
    }

    /** @param byId becomes this one's */
    static ListedGroups of(Map<String, Group> byId, IdIndex devices, IdIndex users) {
        return new ListedGroups(byId, devices, users, new ConcurrentHashMap<>());
    }

    /** Others among the same devices and people; what is known of groups that there are no more is forgotten. */
    ListedGroups with(Map<String, Group> newer) {
        if (newer.size() < known.size()) {
            known.keySet().retainAll(newer.keySet());
        }
        return new ListedGroups(newer, devices, users, known);
    }

    /** The same among others, some of whom are new: what was listed of those that there are holds where these keep their numbers. */
    ListedGroups among(IdIndex newerDevices, IdIndex newerUsers) {
        if (newerDevices == devices && newerUsers == users) {
            return this;
        }
        ListedGroups groups = of(byId, newerDevices, newerUsers);
        if (newerDevices.follows(devices) && newerUsers.follows(users)) {
            known.forEach((id, one) -> {
                if (one.listing().size() == one.group().members().size()) {
                    groups.known.put(id, one);
                }
            });
        }
        return groups;
    }

    IdIndex devices() {
        return devices;
    }

    IdIndex users() {
        return users;
    }

    /** By id. */
    Map<String, Group> byId() {
        return byId;
    }

    /** What one of the groups lists, found now or before. */
    Listing listing(Group group) {
        Known before = known.get(group.id());
        if (before != null && before.group() == group) {
            return before.listing();
        }
        Listing listing = Listing.of(group, devices, users);
        known.put(group.id(), new Known(group, listing));
        return listing;
    }

    /** Whether a group lists one of these; of one whose members are not all here, it may be said though it lists none. */
    Predicate<Group> thatList(Set<Target> some) {
        BitSet someDevices = new BitSet();
        BitSet someUsers = new BitSet();
        for (Target one : some) {
            if (one.kind() == Target.Kind.DEVICE && devices.has(one.id())) {
                someDevices.set(devices.find(one.id()));
            } else if (one.kind() == Target.Kind.USER && users.has(one.id())) {
                someUsers.set(users.find(one.id()));
            }
        }
        return group -> {
            Listing listing = listing(group);
            return listing.size() < group.members().size() || Arrays.stream(listing.devices()).anyMatch(someDevices::get)
                    || Arrays.stream(listing.users()).anyMatch(someUsers::get)
                    || listing.groups().stream().anyMatch(id -> some.contains(Target.group(id)));
        };
    }
}
