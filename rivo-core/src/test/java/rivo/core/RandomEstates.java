package rivo.core;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
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
 * Small estates in which everything that the rules speak of happens often: the same seed gives the same one. Always valid. One in five is <b>knotted</b>: nearly
 * all of its titles hang together, by one runtime that most need, a chain of titles that replace each other, and relations drawn at random, and much is present.
 */
public final class RandomEstates {

    private static final Instant AS_OF = Instant.parse("2026-11-23T08:00:00Z");
    private static final List<String> VERSIONS = List.of("1.0", "1.5-rc1", "1.5", "2.0", "2.0.1");
    private static final List<String> RULES = List.of("arch eq \"X64\"", "ramGiB ge 8", "not (arch pr)",
            "lastSeen gt \"-P14D\"", "software[name sw \"Silt\" and version lt \"2\"]", "software.name ne \"Mud\"",
            "group eq \"name-g0\" or people[group eq \"NAME-G1\"]", "people[department eq \"labs\" and not (name co \"u1\")]",
            "ou eq \"ou=o1,  dc=quillbrook\"", "present[title eq \"t1\" and version ge \"1.5\"]", "os.version ge \"10.0\"",
            "x.Room ne \"b\"", "present pr", "people.ou co \"OU=o2\"", "name ew \"2\" or name ew \"4\"");

    private final Random random;
    private final int devices;
    private final List<Ou> ous = new ArrayList<>();
    private final List<User> users = new ArrayList<>();
    private final List<Title> titles = new ArrayList<>();
    private final List<Kit> kits = new ArrayList<>();
    private final List<String> collections = new ArrayList<>();
    private final int groups;
    private final int assignments;

    private final boolean knotted;

    /** One in so many is knotted. */
    private static final int KNOTTED = 5;

    private RandomEstates(long seed) {
        this.random = new Random(seed);
        this.knotted = seed % KNOTTED == KNOTTED - 1;
        this.devices = 1 + random.nextInt(6);
        this.groups = random.nextInt(4);
        this.assignments = knotted ? 12 + random.nextInt(30) : random.nextInt(14);
    }

    public static EstateParts parts(long seed) {
        return new RandomEstates(seed).make();
    }

    private EstateParts make() {
        int n = 1 + random.nextInt(5);
        for (int i = 0; i < n; i++) {
            String parent = i == 0 ? null : "o" + random.nextInt(i);
            ous.add(new Ou("o" + i, "o" + i, "ou=o" + i + ",dc=quillbrook", parent, i > 0 && chance(30)));
        }
        for (int i = random.nextInt(5); i > 0; i--) {
            users.add(new User("u" + i, "name-u" + i, "", someOu(), Facts.of(Map.of("department",
                    chance(50) ? "Labs" : "works"))));
        }
        titles();
        for (int i = random.nextInt(3); i > 0; i--) {
            collections.add("c" + i);
        }
        if (chance(60)) {
            kits.add(new Kit("k", "kit", List.copyOf(new LinkedHashSet<>(List.of(title().id(), title().id())))));
        }
        List<DeviceCollection> made = new ArrayList<>();
        for (int i = 0; i < collections.size(); i++) {
            String asked = i > 0 && chance(50) ? "collection eq \"NAME-" + collections.get(i - 1) + "\"" : rule();
            made.add(new DeviceCollection(collections.get(i), "name-" + collections.get(i), someOu(),
                    chance(80) ? asked : null, some(this::deviceId), some(this::deviceId)));
        }
        List<Device> all = new ArrayList<>();
        for (int i = 0; i < devices; i++) {
            all.add(device("d" + i));
        }
        List<Assignment> asked = new ArrayList<>();
        for (int i = 0; i < assignments; i++) {
            asked.add(assignment(i));
        }
        Collections.shuffle(asked, random);
        return new EstateParts(AS_OF, ous, users, all, groups(), made, titles, kits, asked, requests());
    }

    private boolean chance(int percent) {
        return random.nextInt(100) < percent;
    }

    private <T> T one(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private <T> List<T> some(java.util.function.Supplier<T> supplier) {
        List<T> list = new ArrayList<>();
        while (chance(30)) {
            list.add(supplier.get());
        }
        return List.copyOf(new LinkedHashSet<>(list));
    }

    private @Nullable String someOu() {
        return chance(15) ? null : one(ous).id();
    }

    private String deviceId() {
        return "d" + random.nextInt(devices);
    }

    private String rule() {
        String rule = one(RULES);
        return chance(25) ? "(" + rule + ") and not (" + one(RULES) + ")" : rule;
    }

    private Title title() {
        return one(titles);
    }

    private void titles() {
        int n = knotted ? 10 + random.nextInt(12) : 2 + random.nextInt(6);
        List<Scope> scopes = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            scopes.add(chance(knotted ? 85 : 70) || knotted && i == n - 1 ? Scope.DEVICE : Scope.USER);
        }
        for (int i = 0; i < n; i++) {
            Set<String> conflicts = new LinkedHashSet<>();
            Set<String> replaced = new LinkedHashSet<>();
            Set<String> needed = new LinkedHashSet<>();
            for (int j = i + 1; j < n; j++) {
                int kind = knotted ? knot(i, j, n) : random.nextInt(9);
                if (kind == 0 && scopes.get(i) == scopes.get(j)) {
                    conflicts.add("t" + j);
                } else if (kind == 1 && scopes.get(i) == scopes.get(j)) {
                    replaced.add("t" + j);
                } else if (kind <= 3 && (scopes.get(i) == scopes.get(j) || scopes.get(i) == Scope.USER)) {
                    needed.add("t" + j);
                }
            }
            titles.add(new Title("t" + i, "Title " + i, scopes.get(i), chance(20) ? random.nextInt(3) : null,
                    List.copyOf(conflicts), releases(replaced, needed)));
        }
        Collections.shuffle(titles, random);
    }

    /** Which relation there is to a later title: 0 a conflict, 1 a replacement, 2 a need, more none. */
    private int knot(int i, int j, int n) {
        boolean isRuntime = j == n - 1;
        boolean isNextInChain = j == i + 1 && i < n / 2;
        return isRuntime && chance(60) ? 2 : isNextInChain && chance(80) ? 1 : random.nextInt(3 * n);
    }

    private static Replacement.Mode mode(String replaced, String version) {
        return (replaced + version).hashCode() % 2 == 0 ? Replacement.Mode.IN_PLACE : Replacement.Mode.REMOVE_FIRST;
    }

    private List<Release> releases(Set<String> replaced, Set<String> needed) {
        Set<String> versions = new LinkedHashSet<>();
        while (chance(75) && versions.size() < 3) {
            versions.add(one(VERSIONS));
        }
        List<Release> releases = new ArrayList<>();
        for (String version : versions) {
            List<Variant> variants = new ArrayList<>();
            variants.add(new Variant("v1", chance(30) ? rule() : null));
            if (chance(40)) {
                variants.add(new Variant("v2", chance(50) ? rule() : null));
            }
            List<Need> needs = new ArrayList<>(needed.stream().filter(t -> chance(80))
                    .map(t -> new Need(t, chance(40) ? Version.of(one(VERSIONS)) : null)).toList());
            Collections.shuffle(needs, random);
            releases.add(new Release(Version.of(version), chance(15) ? ReleaseState.WITHDRAWN : ReleaseState.OFFERED, needs,
                    replaced.stream().filter(t -> chance(80)).map(t -> new Replacement(t, mode(t, version))).toList(),
                    variants));
        }
        return releases;
    }

    private Device device(String id) {
        Map<String, String> facts = new LinkedHashMap<>();
        if (chance(70)) {
            facts.put("arch", chance(60) ? "x64" : "arm64");
        }
        if (chance(70)) {
            facts.put("ramGiB", chance(50) ? "16" : "4");
        }
        if (chance(50)) {
            facts.put("lastSeen", chance(50) ? "2026-11-22T17:05:00Z" : "2026-10-01T00:00:00+02:00");
        }
        if (chance(50)) {
            facts.put("os.version", chance(50) ? "10.0.26100" : "9.9");
        }
        if (chance(50)) {
            facts.put("x.room", chance(50) ? "B" : "a");
        }
        List<String> people = new ArrayList<>(users.stream().map(User::id).filter(u -> chance(45)).toList());
        Collections.shuffle(people, random);
        List<Installed> software = some(() -> new Installed(chance(50) ? "Siltscope" : "mud", null, one(VERSIONS)));
        return new Device(id, chance(90) ? "QB-" + id : "", someOu(), people, Facts.of(facts), software, present());
    }

    private List<Present> present() {
        Map<String, Present> present = new LinkedHashMap<>();
        for (Title title : titles) {
            if (!chance(knotted ? 60 : 40) || title.scope() == Scope.USER && users.isEmpty()) {
                continue;
            }
            String user = title.scope() == Scope.USER ? one(users).id() : null;
            String by = assignments > 0 && chance(60) ? "a" + random.nextInt(assignments) : null;
            present.put(title.id(), new Present(title.id(), chance(80) ? Version.of(one(VERSIONS)) : null, user, by));
        }
        return List.copyOf(present.values());
    }

    private List<Group> groups() {
        List<Group> all = new ArrayList<>();
        for (int i = 0; i < groups; i++) {
            Set<Target> members = new LinkedHashSet<>();
            members.addAll(some(() -> Target.device(deviceId())));
            members.addAll(some(() -> Target.group("g" + random.nextInt(groups))));
            if (!users.isEmpty()) {
                members.addAll(some(() -> Target.user(one(users).id())));
            }
            all.add(new Group("g" + i, "name-g" + i, List.copyOf(members)));
        }
        return all;
    }

    private Target target() {
        return switch (random.nextInt(7)) {
            case 0 -> Target.ALL_DEVICES;
            case 1 -> Target.ALL_USERS;
            case 2 -> groups == 0 ? Target.ou(one(ous).id()) : Target.group("g" + random.nextInt(groups));
            case 3 -> collections.isEmpty() ? Target.ou(one(ous).id()) : Target.collection(one(collections));
            case 4 -> Target.device(deviceId());
            case 5 -> users.isEmpty() ? Target.ALL_DEVICES : Target.user(one(users).id());
            default -> Target.ou(one(ous).id());
        };
    }

    private Target include(Follows follows) {
        Target target = target();
        while (!target.kind().serves(follows)) {
            target = target();
        }
        return target;
    }

    private Assignment assignment(int i) {
        Follows follows = chance(65) ? Follows.DEVICE : Follows.USER;
        List<Target> include = new ArrayList<>(List.of(include(follows)));
        include.addAll(some(() -> include(follows)));
        AssignmentState state = chance(85) ? AssignmentState.ACTIVE : one(List.of(AssignmentState.values()));
        Intent intent = chance(55) ? Intent.REQUIRED : one(List.of(Intent.values()));
        Subject subject = !kits.isEmpty() && chance(15) ? Subject.kit("k") : Subject.title(title().id());
        return new Assignment("a" + i, 100 - i, state, subject, intent, follows, include, some(this::target),
                chance(20) ? rule() : null, chance(20) ? someOu() : null, chance(20),
                chance(80) ? Assignment.USUAL_PRIORITY : 400 + random.nextInt(3) * 100,
                chance(15) ? Version.of(one(VERSIONS)) : null,
                chance(15) ? AS_OF.plusSeconds(random.nextInt(3) - 1L) : null, chance(40) ? Leaving.REMOVE : Leaving.KEEP,
                chance(25) ? waves() : List.of());
    }

    private List<Wave> waves() {
        List<Wave> waves = new ArrayList<>();
        int left = 100;
        do {
            if (chance(50)) {
                waves.add(Wave.to(List.of(target(), target()), chance(50)));
            } else {
                int share = random.nextInt(left + 1);
                left -= share;
                waves.add(Wave.share(share, chance(50)));
            }
        } while (chance(60));
        return waves;
    }

    private List<Request> requests() {
        return some(() -> {
            Title title = title();
            String user = title.scope() == Scope.DEVICE ? null : users.isEmpty() ? "" : one(users).id();
            return new Request(deviceId(), title.id(), user);
        }).stream().filter(r -> !"".equals(r.user())).toList();
    }
}
