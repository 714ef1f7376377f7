package rivo.core;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Intent;
import rivo.core.estate.Leaving;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;

/**
 * An estate of two and a half thousand devices, the same on every run, and changes to it: enough that blocks, lists and
 * packed sets all come to be used, and that a few changed devices are few.
 */
final class LargeEstate {

    static final int DEVICES = 2500;
    private static final int TITLES = 60;
    /** Those from here on form one family. */
    private static final int KNOTTED_FROM = 30;
    private static final int RUNTIME = 58;
    private static final int GROUPS = 40;
    private static final int ASSIGNMENTS = 700;

    private final Random random = new Random(20);
    /** Of its own, so that all else stays as it is. */
    private final Random relations = new Random(21);

    EstateParts parts() {
        List<Ou> ous = new ArrayList<>(List.of(new Ou("o0", "Quillbrook Water", "dc=quillbrook", null, false)));
        for (int i = 1; i < 60; i++) {
            ous.add(new Ou("o" + i, "Part " + i, "ou=p" + i + ",dc=quillbrook", "o" + (i - 1) / 4, i % 19 == 18));
        }
        List<User> users = new ArrayList<>();
        List<Device> devices = new ArrayList<>();
        for (int i = 0; i < DEVICES; i++) {
            users.add(new User("u" + i, "person." + i, "", "o" + random.nextInt(60), Facts.NONE));
            devices.add(device(i));
        }
        List<DeviceCollection> collections = List.of(
                new DeviceCollection("c0", "Large ones", null, "ramGiB ge 8", List.of(), List.of("d1")),
                new DeviceCollection("c1", "With silt", "o1", "software[name eq \"Silt\"]", List.of("d2"), List.of()));
        List<Assignment> assignments = new ArrayList<>();
        for (int a = 0; a < ASSIGNMENTS; a++) {
            assignments.add(assignment(a));
        }
        List<Request> requests = List.of(new Request("d5", "t3", null), new Request("d6", "t9", "u6"));
        return new EstateParts(Estates.AS_OF, ous, users, devices, groups(), collections, titles(), List.of(), assignments,
                requests);
    }

    private Device device(int i) {
        Map<String, Present> present = new HashMap<>();
        for (int n = random.nextInt(5); n > 0; n--) {
            int t = random.nextInt(TITLES);
            if (!isPersonal(t)) {
                present.put("t" + t, new Present("t" + t, Version.of(random.nextBoolean() ? "1.0" : "3.0"), null,
                        random.nextInt(3) == 0 ? "a" + random.nextInt(ASSIGNMENTS) : null));
            }
        }
        Facts facts = random.nextInt(10) == 0 ? Facts.NONE : Estates.facts("arch", random.nextInt(5) == 0 ? "arm64" : "x64",
                "ramGiB", String.valueOf(4 << random.nextInt(3)));
        List<Installed> software = random.nextInt(4) == 0 ? List.of(new Installed("Silt", null, "1.0")) : List.of();
        List<String> people = i % 11 == 0 ? List.of() : i % 13 == 0 ? List.of("u" + i, "u" + (i + 1) % DEVICES) : List.of("u" + i);
        return new Device("d" + i, "QB-" + i, i % 17 == 0 ? null : "o" + random.nextInt(60), people, facts, software,
                List.copyOf(present.values()));
    }

    private static boolean isPersonal(int title) {
        return title % 10 == 9;
    }

    private List<Group> groups() {
        List<Group> groups = new ArrayList<>();
        for (int g = 0; g < GROUPS; g++) {
            Set<Target> members = new LinkedHashSet<>();
            for (int n = 1 << random.nextInt(10); n > 0; n--) {
                int i = random.nextInt(DEVICES);
                members.add(g % 3 == 2 ? Target.user("u" + i) : Target.device("d" + i));
            }
            if (g > 4 && g % 5 == 0) {
                members.add(Target.group("g" + random.nextInt(g)));
            }
            groups.add(new Group("g" + g, "group-" + g, List.copyOf(members)));
        }
        return groups;
    }

    private List<Title> titles() {
        List<Title> titles = new ArrayList<>();
        for (int t = 0; t < TITLES; t++) {
            boolean related = t % 5 == 0 && t < KNOTTED_FROM && !isPersonal(t + 2);
            List<Need> needs = new ArrayList<>(related ? List.of(new Need("t" + (t + 1), Version.of("1.0")))
                    : isPersonal(t) && t % 20 == 9 ? List.of(new Need("t3", null)) : List.of());
            List<Replacement> replaces = new ArrayList<>(related ? List.of(new Replacement("t" + (t + 2), Replacement.Mode.REMOVE_FIRST))
                    : List.of());
            List<String> conflicts = new ArrayList<>();
            if (t >= KNOTTED_FROM && t < RUNTIME && !isPersonal(t)) {
                knot(t, needs, replaces, conflicts);
            }
            List<Variant> variants = t % 3 == 0 ? List.of(new Variant("x64", "arch eq \"x64\""))
                    : List.of(new Variant("large", "ramGiB ge 16"), new Variant("all", null));
            titles.add(new Title("t" + t, "Title " + t, isPersonal(t) ? Scope.USER : Scope.DEVICE, t % 7 == 3 ? 150 : null,
                    conflicts, List.of(new Release(Version.of("2.0"), ReleaseState.OFFERED, List.of(), List.of(), variants),
                            new Release(Version.of("3.0"), ReleaseState.OFFERED, needs, replaces, variants))));
        }
        return titles;
    }

    /** One family of nearly all that follow: most need the runtime, each of ten replaces the next, and others are drawn at random. */
    private void knot(int t, List<Need> needs, List<Replacement> replaces, List<String> conflicts) {
        if (relations.nextInt(10) < 6) {
            needs.add(new Need("t" + RUNTIME, relations.nextBoolean() ? Version.of("3.0") : null));
        }
        if (t < KNOTTED_FROM + 8) {
            replaces.add(new Replacement("t" + (t + 1), Replacement.Mode.IN_PLACE));
        }
        int other = t + 2 + relations.nextInt(RUNTIME - t);
        if (other < RUNTIME && !isPersonal(other)) {
            switch (relations.nextInt(3)) {
                case 0 -> needs.add(new Need("t" + other, null));
                case 1 -> replaces.add(new Replacement("t" + other, Replacement.Mode.REMOVE_FIRST));
                default -> conflicts.add("t" + other);
            }
        }
    }

    private Assignment assignment(int a) {
        Follows follows = a % 6 == 0 ? Follows.USER : Follows.DEVICE;
        int draw = random.nextInt(10);
        Intent intent = draw < 6 ? Intent.REQUIRED : draw < 8 ? Intent.AVAILABLE : Intent.UNINSTALL;
        Assignment one = Assignment.of("a" + a, a, Subject.title("t" + a % TITLES), intent, List.of(target(follows)))
                .withFollows(follows).withBinding(a % 30 == 0).withPriority(400 + random.nextInt(3) * 100)
                .withLeaving(a % 4 == 0 ? Leaving.REMOVE : Leaving.KEEP);
        one = a % 8 == 1 ? one.withExclude(List.of(Target.group("g" + random.nextInt(GROUPS)))) : one;
        one = a % 25 == 2 ? one.withWithin("ramGiB ge 8") : one;
        return a % 20 == 3 ? one.withWaves(List.of(Wave.to(List.of(Target.group("g1")), true), Wave.share(30, true),
                Wave.share(70, false))) : one;
    }

    private Target target(Follows follows) {
        int kind = random.nextInt(10);
        if (kind < 5) {
            return Target.ou("o" + random.nextInt(60));
        }
        if (kind < 8) {
            return Target.group("g" + random.nextInt(GROUPS));
        }
        if (follows == Follows.USER) {
            return kind == 8 ? Target.user("u" + random.nextInt(DEVICES)) : Target.ALL_USERS;
        }
        return kind == 8 ? Target.collection("c" + random.nextInt(2)) : random.nextInt(4) == 0 ? Target.ALL_DEVICES
                : Target.device("d" + random.nextInt(DEVICES));
    }

    /** An edit of some kind, to one assignment. */
    Estate edited(Estate estate, int kind) {
        Assignment one = estate.assignments().all().get(random.nextInt(ASSIGNMENTS));
        return estate.withAssignments(List.of(switch (kind % 5) {
            case 0 -> one.withIntent(one.intent() == Intent.REQUIRED ? Intent.UNINSTALL : Intent.REQUIRED);
            case 1 -> one.retired();
            case 2 -> one.withPriority(one.priority() + 50);
            case 3 -> one.withBinding(!one.binding());
            default -> one.withInclude(List.of(target(one.follows())));
        }));
    }

    /** A change of some kind to who or what is where; titles and assignments stay. */
    Estate changed(Estate estate, int kind) {
        Device device = estate.devices().at(random.nextInt(estate.devices().size()));
        return switch (kind % 10) {
            case 0 -> estate.withDevice(device.withReport(Estates.facts("arch", "arm64", "ramGiB", "16"), List.of(), device.present()));
            case 1 -> estate.withDevice(device.withOu("o" + random.nextInt(60)));
            case 2 -> estate.withDevice(device.withPeople(List.of("u" + random.nextInt(DEVICES))));
            case 3 -> estate.withDevice(device.withReport(device.facts(), List.of(), List.of(Present.of(
                    "t" + (10 + 7 * random.nextInt(4)), Version.of("3.0")))));
            case 4 -> withOther(estate, Objects.requireNonNull(estate.groups().get("g" + random.nextInt(GROUPS))), device);
            case 5 -> withOther(estate, estate.ous().at(1 + random.nextInt(59)));
            case 6 -> estate.withCollection(new DeviceCollection("c1", random.nextBoolean() ? "Large" : "Huge", "o0",
                    "ramGiB ge " + (4 << random.nextInt(4)), List.of(device.id()), List.of()));
            case 7 -> without(estate, device);
            case 8 -> estate.withCollection(new DeviceCollection("c0", "Large ones", estate.ous().at(random.nextInt(60)).id(),
                    "group eq \"group-" + 3 * random.nextInt(3) + "\"", List.of(), List.of()));
            default -> Estate.of(estate.parts().withDevices(with(estate.devices().all(), new Device("new" + random.nextInt(),
                    "", "o7", List.of("u7"), device.facts(), List.of(), device.present().stream()
                            .filter(p -> p.user() == null).toList()))));
        };
    }

    private static <T> List<T> with(List<T> all, T one) {
        List<T> more = new ArrayList<>(all);
        more.add(one);
        return more;
    }

    private static Estate withOther(Estate estate, Group group, Device device) {
        List<Target> members = with(group.members().subList(1, group.members().size()), Target.device(device.id()));
        return estate.withGroup(new Group(group.id(), group.name(), members.stream().distinct().toList()));
    }

    private Estate withOther(Estate estate, Ou ou) {
        boolean moved = random.nextBoolean() && estate.ous().all().stream().noneMatch(o -> ou.id().equals(o.parent()));
        Ou other = new Ou(ou.id(), ou.name(), ou.dn(), moved ? "o0" : ou.parent(), moved == ou.fenced());
        return estate.withOus(estate.ous().all().stream().map(o -> o == ou ? other : o).toList());
    }

    private static Estate without(Estate estate, Device gone) {
        Predicate<Target> stays = target -> !target.equals(Target.device(gone.id()));
        return Estate.of(estate.parts().withDevices(estate.devices().all().stream().filter(d -> d != gone).toList())
                .withRequests(estate.parts().requests().stream().filter(r -> !r.device().equals(gone.id())).toList())
                .withCollections(estate.collections().values().stream().map(c -> new DeviceCollection(c.id(), c.name(),
                        c.base(), c.rule(), List.of(), List.of())).toList())
                .withGroups(estate.groups().values().stream().map(g -> new Group(g.id(), g.name(), g.members().stream()
                        .filter(stays).toList())).toList())
                .withAssignments(estate.assignments().all().stream().map(a -> a.include().stream().allMatch(stays) ? a
                        : a.withInclude(List.of(Target.ou("o3")))).toList()));
    }
}
