package rivo.core;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.estate.User;

/** A directory in which things go, come back, and are moved meanwhile, as against an estate of it. */
final class RandomDirectories {

    private final EstateParts all;
    private final Random random;

    /** @param all everything that there ever is */
    RandomDirectories(EstateParts all, Random random) {
        this.all = all;
        this.random = random;
    }

    /** Some things have gone, others are back or stand elsewhere. */
    DirectoryChange change(Estate estate) {
        Set<String> goneOus = new HashSet<>();
        Ou leaf = estate.ous().at(estate.ous().size() - 1);
        if (leaf.parent() != null && random.nextInt(3) == 0) {
            goneOus.add(leaf.id());
        }
        Set<String> goneUsers = some(estate.users().all(), User::id);
        Set<String> goneDevices = some(estate.devices().all(), Device::id);
        Set<String> goneGroups = some(List.copyOf(estate.groups().values()), Group::id);
        List<Ou> ous = back(all.ous(), ou -> estate.ous().find(ou.id()) != null || estate.ous().find(Objects.requireNonNull(ou.parent())) == null);
        ous.removeIf(ou -> goneOus.contains(ou.parent()));
        Set<String> there = new HashSet<>();
        estate.ous().all().forEach(ou -> there.add(ou.id()));
        ous.forEach(ou -> there.add(ou.id()));
        there.removeAll(goneOus);
        List<User> users = new ArrayList<>();
        for (User user : all.users()) {
            boolean is = estate.users().find(user.id()) != null;
            if (!goneUsers.contains(user.id()) && (is ? goneOus.contains(user.ou()) : random.nextInt(3) == 0)) {
                users.add(new User(user.id(), user.name(), user.fullName(), in(there, user.ou()), user.facts()));
            }
        }
        Set<String> people = ids(estate.users().all(), User::id, users, goneUsers);
        List<Device> devices = new ArrayList<>();
        for (Device device : all.devices()) {
            Device is = estate.devices().find(device.id());
            boolean changes = is == null ? random.nextInt(3) == 0 : is.ou() != null && goneOus.contains(is.ou()) || random.nextInt(5) == 0;
            if (changes && !goneDevices.contains(device.id())) {
                devices.add(device.withOu(in(there, device.ou())).withPeople(device.people().stream().filter(people::contains).toList()));
            }
        }
        Set<String> known = ids(estate.devices().all(), Device::id, devices, goneDevices);
        List<Group> groups = back(all.groups(), group -> goneGroups.contains(group.id()));
        Set<String> groupsThen = ids(List.copyOf(estate.groups().values()), Group::id, groups, goneGroups);
        return DirectoryChange.none(Instant.EPOCH).withOus(ous, goneOus).withUsers(users, goneUsers).withDevices(devices, goneDevices)
                .withGroups(groups.stream().map(g -> new Group(g.id(), g.name(), g.members().stream().filter(m -> switch (m.kind()) {
                    case USER -> people.contains(m.id());
                    case DEVICE -> known.contains(m.id());
                    case GROUP -> groupsThen.contains(m.id());
                    case ALL_DEVICES, ALL_USERS, OU, COLLECTION -> false;
                }).toList())).toList(), goneGroups);
    }

    private <T> Set<String> some(List<T> of, Function<T, String> id) {
        Set<String> some = new HashSet<>();
        of.stream().filter(one -> random.nextInt(5) == 0).forEach(one -> some.add(id.apply(one)));
        return some;
    }

    private <T> List<T> back(List<T> of, java.util.function.Predicate<T> not) {
        List<T> back = new ArrayList<>();
        of.stream().filter(one -> !not.test(one) && random.nextBoolean()).forEach(back::add);
        return back;
    }

    private static <T> Set<String> ids(List<T> before, Function<T, String> id, List<T> put, Set<String> gone) {
        Set<String> ids = new HashSet<>();
        before.forEach(one -> ids.add(id.apply(one)));
        ids.removeAll(gone);
        put.forEach(one -> ids.add(id.apply(one)));
        return ids;
    }

    private static @Nullable String in(Set<String> there, @Nullable String ou) {
        return ou != null && there.contains(ou) ? ou : null;
    }

    /** Whether the target names something that there is. */
    static boolean isThere(Estate estate, Target target) {
        return switch (target.kind()) {
            case ALL_DEVICES, ALL_USERS, COLLECTION -> true;
            case OU -> estate.ous().find(target.id()) != null;
            case GROUP -> estate.groups().containsKey(target.id());
            case DEVICE -> estate.devices().find(target.id()) != null;
            case USER -> estate.users().find(target.id()) != null;
        };
    }
}
