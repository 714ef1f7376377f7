package rivo.core.estate;

import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * How a directory differs from what it was: what is new or different, and the ids of what has gone. What is not named stays as it is.
 *
 * @param at when it was found to be so
 * @param ous new or different; a fence is part of it
 * @param users new or different
 * @param devices new or different; with such of their people as there are after the change
 * @param groups new or different; with such of their members as there are after the change
 */
public record DirectoryChange(Instant at, List<Ou> ous, Set<String> goneOus, List<User> users, Set<String> goneUsers, List<Device> devices,
        Set<String> goneDevices, List<Group> groups, Set<String> goneGroups) {

    public DirectoryChange {
        Objects.requireNonNull(at);
        ous = List.copyOf(ous);
        goneOus = Set.copyOf(goneOus);
        users = List.copyOf(users);
        goneUsers = Set.copyOf(goneUsers);
        devices = List.copyOf(devices);
        goneDevices = Set.copyOf(goneDevices);
        groups = List.copyOf(groups);
        goneGroups = Set.copyOf(goneGroups);
    }

    /** Nothing is different. */
    public static DirectoryChange none(Instant at) {
        return new DirectoryChange(at, List.of(), Set.of(), List.of(), Set.of(), List.of(), Set.of(), List.of(), Set.of());
    }

    public DirectoryChange withOus(List<Ou> put, Set<String> gone) {
        return new DirectoryChange(at, put, gone, users, goneUsers, devices, goneDevices, groups, goneGroups);
    }

    public DirectoryChange withUsers(List<User> put, Set<String> gone) {
        return new DirectoryChange(at, ous, goneOus, put, gone, devices, goneDevices, groups, goneGroups);
    }

    public DirectoryChange withDevices(List<Device> put, Set<String> gone) {
        return new DirectoryChange(at, ous, goneOus, users, goneUsers, put, gone, groups, goneGroups);
    }

    public DirectoryChange withGroups(List<Group> put, Set<String> gone) {
        return new DirectoryChange(at, ous, goneOus, users, goneUsers, devices, goneDevices, put, gone);
    }

    /** All that is new or different. */
    Set<Target> put() {
        Set<Target> put = new HashSet<>();
        ous.forEach(ou -> put.add(Target.ou(ou.id())));
        users.forEach(user -> put.add(Target.user(user.id())));
        devices.forEach(device -> put.add(Target.device(device.id())));
        groups.forEach(group -> put.add(Target.group(group.id())));
        return put;
    }

    /** All that has gone. */
    Set<Target> gone() {
        Set<Target> gone = new HashSet<>();
        goneOus.forEach(id -> gone.add(Target.ou(id)));
        goneUsers.forEach(id -> gone.add(Target.user(id)));
        goneDevices.forEach(id -> gone.add(Target.device(id)));
        goneGroups.forEach(id -> gone.add(Target.group(id)));
        return gone;
    }

    boolean touchesOus() {
        return !ous.isEmpty() || !goneOus.isEmpty();
    }

    boolean touchesUsers() {
        return !users.isEmpty() || !goneUsers.isEmpty();
    }

    boolean touchesDevices() {
        return !devices.isEmpty() || !goneDevices.isEmpty() || !goneUsers.isEmpty();
    }

    boolean touchesGroups() {
        return !groups.isEmpty() || !goneGroups.isEmpty() || !goneUsers.isEmpty() || !goneDevices.isEmpty();
    }
}
