package rivo.core.estate;

import java.time.Instant;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A snapshot of everything that resolution looks at (section 1 of the resolution rules).
 *
 * <p>Immutable: every {@code with} gives a new estate that shares all it can with this one, so that any number of
 * readers may go on with the one they have. The answer of the core depends on the estate alone.
 */
public final class Estate {

    private final Instant asOf;
    private final OuTree ous;
    private final Users users;
    private final Devices devices;
    private final ListedGroups groups;
    private final Map<String, DeviceCollection> collections;
    private final Map<String, Title> titles;
    private final Map<String, Kit> kits;
    private final Assignments assignments;
    private final Map<String, List<Request>> requests;
    private final Map<Target, GoneReference> gone;

    private Estate(Instant asOf, OuTree ous, Users users, Devices devices, ListedGroups groups,
            Map<String, DeviceCollection> collections, Map<String, Title> titles, Map<String, Kit> kits,
            Assignments assignments, Map<String, List<Request>> requests, Map<Target, GoneReference> gone) {
        this.asOf = asOf;
        this.ous = ous;
        this.users = users;
        this.devices = devices;
        this.groups = groups;
        this.collections = collections;
        this.titles = titles;
        this.kits = kits;
        this.assignments = assignments;
        this.requests = requests;
        this.gone = gone;
    }

    /**
     * Builds an estate from its parts, whose order never matters. Costs a sort of the devices and of the people. Rules
     * are texts here; whoever takes them from outside has them checked by {@code rivo.core.rule.EstateRules}.
     *
     * @throws RefusedException with every problem that {@link EstateChecks} finds
     */
    public static Estate of(EstateParts parts) {
        return of(EstateChecks.of(parts, Set.of()));
    }

    /**
     * The same of parts that have been checked.
     *
     * @throws RefusedException with every problem that was found
     */
    public static Estate of(EstateChecks checks) {
        if (!checks.problems().isEmpty()) {
            throw new RefusedException(checks.problems());
        }
        return of(checks.parts(), checks.groups());
    }

    /** The same for parts in which {@link EstateChecks} would find nothing; anything else may fail later on. */
    public static Estate ofChecked(EstateParts parts) {
        return of(parts, ListedGroups.of(byId(parts.groups(), Group::id), Devices.index(parts.devices()), Users.index(parts.users())));
    }

    private static Estate of(EstateParts parts, ListedGroups groups) {
        OuTree tree = OuTree.of(parts.ous());
        Map<String, Kit> kits = byId(parts.kits(), Kit::id);
        Assignments assignments = Assignments.of(parts.assignments(), kits);
        return new Estate(parts.asOf(), tree, Users.of(tree, parts.users(), groups.users()), Devices.of(tree, parts.devices(), groups.devices()), groups,
                byId(parts.collections(), DeviceCollection::id), byId(parts.titles(), Title::id), kits, assignments, byTitle(parts.requests()),
                References.stillNamed(byId(parts.gone(), GoneReference::target), assignments, parts.collections()));
    }

    private static Map<String, List<Request>> byTitle(Collection<Request> requests) {
        return requests.stream().distinct().collect(Collectors.groupingBy(Request::title));
    }

    private static <K, T> Map<K, T> byId(Collection<T> all, Function<T, K> id) {
        Map<K, T> map = new LinkedHashMap<>(all.size() * 2);
        all.forEach(one -> map.put(id.apply(one), one));
        return Collections.unmodifiableMap(map);
    }

    /** The parts again, devices and people in OU order. */
    public EstateParts parts() {
        return new EstateParts(asOf, ous.all(), users.all(), devices.all(), List.copyOf(groups().values()),
                List.copyOf(collections.values()), List.copyOf(titles.values()), List.copyOf(kits.values()),
                assignments.all(), requests(), List.copyOf(gone.values()));
    }

    /** The instant that all of it describes. */
    public Instant asOf() {
        return asOf;
    }

    public OuTree ous() {
        return ous;
    }

    public Users users() {
        return users;
    }

    public Devices devices() {
        return devices;
    }

    /** By id. */
    public Map<String, Group> groups() {
        return groups.byId();
    }

    /**
     * Gives the positions of those of its devices and people that there are, whom one of the groups lists itself, each in the group's order.
     * They were found when the estate was checked; else they are when this is first asked.
     */
    public void listed(Group group, IntConsumer device, IntConsumer user) {
        Listing listing = groups.listing(group);
        for (int number : listing.devices()) {
            device.accept(devices.ofNumber(number));
        }
        for (int number : listing.users()) {
            user.accept(users.ofNumber(number));
        }
    }

    /** The ids of the groups that one of the groups lists itself, in its order. */
    public List<String> groupsIn(Group group) {
        return groups.listing(group).groups();
    }

    /** By id. */
    public Map<String, DeviceCollection> collections() {
        return collections;
    }

    /** All titles, in the order they were given in. */
    public Collection<Title> titles() {
        return titles.values();
    }

    /** Whether the titles of both are the very same; false may be said of equal ones. */
    public boolean sharesTitlesWith(Estate other) {
        return titles == other.titles;
    }

    public @Nullable Title title(String id) {
        return titles.get(id);
    }

    /** By id. */
    public Map<String, Kit> kits() {
        return kits;
    }

    /** The titles of a subject, a kit's in its order; those that there are not are left out. */
    public List<Title> titlesOf(Subject subject) {
        Kit kit = subject.kit() ? kits().get(subject.id()) : null;
        List<String> ids = kit != null ? kit.titles() : subject.kit() ? List.of() : List.of(subject.id());
        return ids.stream().map(this::title).filter(Objects::nonNull).toList();
    }

    public Assignments assignments() {
        return assignments;
    }

    /** All requests, each once. */
    public List<Request> requests() {
        return requests.values().stream().flatMap(List::stream).toList();
    }

    /** The requests for a title, each once. */
    public List<Request> requests(String title) {
        return requests.getOrDefault(title, List.of());
    }

    /** What assignments and collections name and the directory does not have any more. */
    public Map<Target, GoneReference> gone() {
        return gone;
    }

    /**
     * This estate as another state of the directory makes it. What has gone is nobody's person and no group's member any more; what still
     * names it rests (section 11). What the change does not name stays the very same. Costs a pass over whatever kind of thing the change
     * touches, and a sort where some of it is new or has gone.
     *
     * @throws RefusedException when the OUs are no tree
     * @throws IllegalArgumentException when something stands in an OU that there is not
     */
    public Estate with(DirectoryChange change) {
        OuTree tree = change.touchesOus() ? tree(changed(ous.all(), Ou::id, change.ous(), change.goneOus())) : ous;
        Users nextUsers = change.touchesUsers() ? users(tree, change) : tree == ous ? users : users.under(tree);
        Devices nextDevices = change.touchesDevices() ? devices(tree, change) : tree == ous ? devices : devices.under(tree);
        ListedGroups nextGroups = groups.among(nextDevices.index(), nextUsers.index());
        return new Estate(asOf, tree, nextUsers, nextDevices, change.touchesGroups() ? groups(nextGroups, change) : nextGroups, collections, titles, kits,
                assignments, requests, new References(this).goneAfter(change));
    }

    private static OuTree tree(List<Ou> ous) {
        List<Problem> problems = EstateChecks.problems(ous);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return OuTree.of(ous);
    }

    private static <T> List<T> changed(List<T> all, Function<T, String> id, List<T> put, Set<String> gone) {
        Map<String, T> byId = new LinkedHashMap<>(byId(all, id));
        put.forEach(one -> byId.put(id.apply(one), one));
        byId.keySet().removeAll(gone);
        return List.copyOf(byId.values());
    }

    private Users users(OuTree tree, DirectoryChange change) {
        List<User> all = changed(users.all(), User::id, change.users(), change.goneUsers());
        return Users.of(tree, all, users.index().following(all, change.users(), User::id));
    }

    private Devices devices(OuTree tree, DirectoryChange change) {
        boolean allKnown = change.devices().stream().allMatch(device -> devices.find(device.id()) != null);
        if (tree == ous && allKnown && change.goneDevices().isEmpty() && change.goneUsers().isEmpty()) {
            return devices.with(change.devices());
        }
        List<Device> all = changed(devices.all(), Device::id, change.devices(), change.goneDevices());
        return Devices.of(tree, change.goneUsers().isEmpty() ? all : all.stream().map(d -> without(d, change.goneUsers())).toList(),
                devices.index().following(all, change.devices(), Device::id));
    }

    private static Device without(Device device, Set<String> goneUsers) {
        List<String> rest = device.people().stream().filter(person -> !goneUsers.contains(person)).toList();
        List<Present> present = device.present().stream().filter(one -> one.user() == null || !goneUsers.contains(one.user())).toList();
        return rest.size() == device.people().size() && present.size() == device.present().size() ? device
                : device.withPeople(rest).withReport(device.facts(), device.software(), present);
    }

    private static ListedGroups groups(ListedGroups groups, DirectoryChange change) {
        Set<Target> goes = change.gone();
        Predicate<Group> listsGone = groups.thatList(goes);
        return groups.with(byId(changed(List.copyOf(groups.byId().values()), Group::id, change.groups(), change.goneGroups()).stream()
                .map(group -> listsGone.test(group) ? without(group, goes) : group).toList(), Group::id));
    }

    private static Group without(Group group, Set<Target> goes) {
        List<Target> rest = group.members().stream().filter(member -> !goes.contains(member)).toList();
        return rest.size() == group.members().size() ? group : new Group(group.id(), group.name(), rest);
    }

    /**
     * This estate with some devices replaced by their newer selves, in other OUs too. Everything else is shared.
     *
     * @throws IllegalArgumentException when one is unknown, or names an OU that is
     */
    public Estate withDevices(Collection<Device> newer) {
        Map<String, Device> byId = newer.stream().collect(Collectors.toMap(Device::id, Function.identity()));
        byId.values().forEach(device -> {
            devices.position(device.id());
            ous.position(device.ou());
        });
        return new Estate(asOf, ous, users, devices.with(byId.values()), groups, collections, titles, kits, assignments,
                requests, gone);
    }

    /** @throws IllegalArgumentException when the device is unknown */
    public Estate withDevice(Device newer) {
        return withDevices(List.of(newer));
    }

    /** This estate with one group put in or replaced. */
    public Estate withGroup(Group group) {
        return new Estate(asOf, ous, users, devices, groups.with(put(groups(), group.id(), group)), collections, titles, kits,
                assignments, requests, gone);
    }

    /** This estate with one collection put in or replaced. */
    public Estate withCollection(DeviceCollection collection) {
        return withCollections(List.of(collection), Set.of());
    }

    /**
     * This estate with some collections put in or replaced and some taken out. Their rules are looked at by {@code rivo.core.rule.EstateRules}.
     *
     * @throws RefusedException when one names something that does not exist, or one that is taken out is still named by an assignment
     */
    public Estate withCollections(Collection<DeviceCollection> changed, Set<String> without) {
        Map<String, DeviceCollection> next = new LinkedHashMap<>(collections);
        changed.forEach(one -> next.put(one.id(), one));
        next.keySet().removeAll(without);
        List<Problem> problems = EstateChecks.problems(this, changed, without);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new Estate(asOf, ous, users, devices, groups, Collections.unmodifiableMap(next), titles, kits, assignments, requests,
                References.stillNamed(gone, assignments, next.values()));
    }

    /**
     * This estate with some assignments put in or replaced.
     *
     * @throws RefusedException when one names something that does not exist
     */
    public Estate withAssignments(Collection<Assignment> changed) {
        List<Problem> problems = EstateChecks.problems(this, changed);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Map<String, Assignment> all = new LinkedHashMap<>();
        assignments.all().forEach(a -> all.put(a.id(), a));
        changed.forEach(a -> all.put(a.id(), a));
        Assignments next = Assignments.of(all.values(), kits);
        return new Estate(asOf, ous, users, devices, groups, collections, titles, kits, next, requests,
                References.stillNamed(gone, next, collections.values()));
    }

    /** This estate with one title put in or replaced. */
    public Estate withTitle(Title title) {
        return new Estate(asOf, ous, users, devices, groups, collections, put(titles, title.id(), title), kits,
                assignments, requests, gone);
    }

    /**
     * This estate with one kit put in or replaced; what is assigned by it speaks for its titles as they are now.
     *
     * @throws RefusedException when a title of it is unknown or comes twice
     */
    public Estate withKit(Kit kit) {
        List<Problem> problems = EstateChecks.problems(this, kit);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return withKits(put(kits, kit.id(), kit));
    }

    /**
     * This estate without a kit.
     *
     * @throws RefusedException when an assignment, a retired one too, is about it
     */
    public Estate withoutKit(String id) {
        for (Assignment assignment : assignments.all()) {
            if (assignment.subject().equals(Subject.kit(id))) {
                throw new RefusedException("kit-assigned", "kits", "The assignment " + assignment.id()
                        + " assigns this kit, so it cannot be deleted.");
            }
        }
        Map<String, Kit> rest = new LinkedHashMap<>(kits);
        rest.remove(id);
        return withKits(Collections.unmodifiableMap(rest));
    }

    private Estate withKits(Map<String, Kit> newKits) {
        return new Estate(asOf, ous, users, devices, groups, collections, titles, newKits,
                Assignments.of(assignments.all(), newKits), requests, gone);
    }

    /** This estate with other requests. */
    public Estate withRequests(Collection<Request> newRequests) {
        return new Estate(asOf, ous, users, devices, groups, collections, titles, kits, assignments,
                byTitle(newRequests), gone);
    }

    /**
     * This estate with other OUs: moved, fenced, renamed. Devices and people stand where these put them. Costs a pass
     * over them; where an OU is missing that was there before, checks of everything.
     *
     * @throws RefusedException when the OUs are no tree, or one that is in use is missing
     */
    public Estate withOus(List<Ou> newOus) {
        Set<String> ids = newOus.stream().map(Ou::id).collect(Collectors.toSet());
        if (!ous.all().stream().allMatch(ou -> ids.contains(ou.id()))) {
            return of(parts().withOus(newOus));
        }
        OuTree tree = tree(newOus);
        return new Estate(asOf, tree, users.under(tree), devices.under(tree), groups, collections, titles, kits,
                assignments, requests, gone);
    }

    /** This estate at another instant. */
    public Estate at(Instant instant) {
        return new Estate(instant, ous, users, devices, groups, collections, titles, kits, assignments, requests, gone);
    }

    private static <T> Map<String, T> put(Map<String, T> map, String id, T value) {
        Map<String, T> all = new LinkedHashMap<>(map);
        all.put(id, value);
        return Collections.unmodifiableMap(all);
    }
}
