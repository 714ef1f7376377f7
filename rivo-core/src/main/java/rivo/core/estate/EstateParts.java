package rivo.core.estate;

import java.time.Instant;
import java.util.List;
import java.util.Objects;

/**
 * The lists that an estate is made of, as they were given: places such as {@code assignments[3]} count in them.
 *
 * @param asOf the instant that all of it describes
 * @param gone what assignments and collections name and the directory does not have any more
 */
public record EstateParts(Instant asOf, List<Ou> ous, List<User> users, List<Device> devices, List<Group> groups,
        List<DeviceCollection> collections, List<Title> titles, List<Kit> kits, List<Assignment> assignments,
        List<Request> requests, List<GoneReference> gone) {

    public EstateParts {
        Objects.requireNonNull(asOf);
        ous = List.copyOf(ous);
        users = List.copyOf(users);
        devices = List.copyOf(devices);
        groups = List.copyOf(groups);
        collections = List.copyOf(collections);
        titles = List.copyOf(titles);
        kits = List.copyOf(kits);
        assignments = List.copyOf(assignments);
        requests = List.copyOf(requests);
        gone = List.copyOf(gone);
    }

    /** Of which nothing that is named has gone. */
    public EstateParts(Instant asOf, List<Ou> ous, List<User> users, List<Device> devices, List<Group> groups,
            List<DeviceCollection> collections, List<Title> titles, List<Kit> kits, List<Assignment> assignments, List<Request> requests) {
        this(asOf, ous, users, devices, groups, collections, titles, kits, assignments, requests, List.of());
    }

    /** Nothing yet. */
    public static EstateParts none(Instant asOf) {
        return new EstateParts(asOf, List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(),
                List.of(), List.of());
    }

    public EstateParts withOus(List<Ou> newOus) {
        return new EstateParts(asOf, newOus, users, devices, groups, collections, titles, kits, assignments, requests, gone);
    }

    public EstateParts withUsers(List<User> newUsers) {
        return new EstateParts(asOf, ous, newUsers, devices, groups, collections, titles, kits, assignments, requests, gone);
    }

    public EstateParts withDevices(List<Device> newDevices) {
        return new EstateParts(asOf, ous, users, newDevices, groups, collections, titles, kits, assignments, requests, gone);
    }

    public EstateParts withGroups(List<Group> newGroups) {
        return new EstateParts(asOf, ous, users, devices, newGroups, collections, titles, kits, assignments, requests, gone);
    }

    public EstateParts withCollections(List<DeviceCollection> newCollections) {
        return new EstateParts(asOf, ous, users, devices, groups, newCollections, titles, kits, assignments, requests, gone);
    }

    public EstateParts withTitles(List<Title> newTitles) {
        return new EstateParts(asOf, ous, users, devices, groups, collections, newTitles, kits, assignments, requests, gone);
    }

    public EstateParts withKits(List<Kit> newKits) {
        return new EstateParts(asOf, ous, users, devices, groups, collections, titles, newKits, assignments, requests, gone);
    }

    public EstateParts withAssignments(List<Assignment> newAssignments) {
        return new EstateParts(asOf, ous, users, devices, groups, collections, titles, kits, newAssignments, requests, gone);
    }

    public EstateParts withRequests(List<Request> newRequests) {
        return new EstateParts(asOf, ous, users, devices, groups, collections, titles, kits, assignments, newRequests, gone);
    }

    public EstateParts withGone(List<GoneReference> newGone) {
        return new EstateParts(asOf, ous, users, devices, groups, collections, titles, kits, assignments, requests, newGone);
    }
}
