package rivo.bench;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
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
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;

/**
 * Makes the estates of the benchmarks: an organisation of a chosen size, the same on every run. Half of the groups are
 * small, a few are huge; one assignment in seven follows the user; one title in ten is a person's; one in eight has
 * relations.
 */
public final class Fleet {

    private static final Instant AS_OF = Instant.parse("2026-11-23T08:00:00Z");
    private static final List<String> VERSIONS = List.of("1.0", "1.1", "2.0", "2.1.3", "3.0-rc1", "3.0", "4.2.0", "10.1");

    /**
     * How large an estate is to be.
     *
     * @param entries present or installed, for each device
     * @param everyone how many of a hundred targets are all devices, or all people
     * @param catalogue how its titles hang together
     * @param ous how many there are, the root among them
     */
    public record Size(int devices, int assignments, int titles, int groups, int collections, int entries, int everyone, Catalogue catalogue,
            int ous) {

        private static final int DEVICES_AN_OU = 500;

        /** With as many OUs as an organisation of that size has. */
        public Size(int devices, int assignments, int titles, int groups, int collections, int entries, int everyone, Catalogue catalogue) {
            this(devices, assignments, titles, groups, collections, entries, everyone, catalogue,
                    Math.max(4, Math.min(2000, devices / DEVICES_AN_OU)));
        }

        /** One of small families. */
        public Size(int devices, int assignments, int titles, int groups, int collections, int entries, int everyone) {
            this(devices, assignments, titles, groups, collections, entries, everyone, Catalogue.FAMILIES);
        }
    }

    /** How the titles of an estate hang together. */
    public enum Catalogue {
        /** One in eight has relations, to the next two. */
        FAMILIES,
        /** None has any. */
        UNRELATED,
        /** Relations are drawn at random over all titles, 1.1 a title; 60 in 100 need one runtime; chains of ten replace each other. */
        KNOTTED
    }

    private final Random random = new Random(20261123);
    /** Of its own, so that all else is the same however titles hang together. */
    private final Random relations = new Random(20261129);
    private final Size size;
    private final List<Ou> ous = new ArrayList<>();
    private final List<Target> deviceTargets = new ArrayList<>();
    private final List<Target> userTargets = new ArrayList<>();
    private final List<Installed> software = new ArrayList<>();
    private final Map<String, String> texts = new HashMap<>();

    private Fleet(Size size) {
        this.size = size;
    }

    public static EstateParts parts(Size size) {
        return new Fleet(size).make();
    }

    private EstateParts make() {
        ous.add(new Ou("o0", "Quillbrook Water", "dc=quillbrook,dc=example", null, false));
        for (int i = 1; i < size.ous(); i++) {
            int parent = (i - 1) / 5;
            ous.add(new Ou("o" + i, "Part " + i, "ou=Part " + i + "," + ous.get(parent).dn(), "o" + parent, i % 97 == 96));
        }
        for (int i = 0; i < 3000; i++) {
            software.add(new Installed("Made-up software " + i, "Maker " + i % 40, VERSIONS.get(i % VERSIONS.size())));
        }
        List<User> users = new ArrayList<>();
        for (int i = 0; i < size.devices(); i++) {
            users.add(new User("u" + i, "person." + i, "", ou(), Facts.of(Map.of("department", shared("Department " + i % 60)))));
            userTargets.add(Target.user(users.get(i).id()));
        }
        List<Device> devices = new ArrayList<>();
        for (int i = 0; i < size.devices(); i++) {
            devices.add(device(i));
            deviceTargets.add(Target.device(devices.get(i).id()));
        }
        return new EstateParts(AS_OF, ous, users, devices, groups(), collections(), titles(), List.of(), assignments(),
                List.of());
    }

    private String ou() {
        return "o" + random.nextInt(ous.size());
    }

    private Device device(int i) {
        Map<String, String> facts = new TreeMap<>();
        facts.put("os.family", i % 9 == 0 ? "linux" : "windows");
        facts.put("os.version", shared("10.0." + (22000 + random.nextInt(40) * 100)));
        facts.put("arch", random.nextInt(20) == 0 ? "arm64" : "x64");
        facts.put("manufacturer", shared("Maker " + random.nextInt(12)));
        facts.put("model", shared("Model " + random.nextInt(300)));
        facts.put("ramGiB", shared(String.valueOf(4 << random.nextInt(4))));
        facts.put("diskFreeGiB", shared(String.valueOf(random.nextInt(900))));
        facts.put("site", shared("Site " + random.nextInt(200)));
        facts.put("lastSeen", shared(AS_OF.minusSeconds(60L * random.nextInt(60_000)).toString()));
        Set<Installed> installed = new LinkedHashSet<>();
        Map<String, Present> present = new TreeMap<>();
        for (int e = 0; e < size.entries() / 2; e++) {
            installed.add(software.get(random.nextInt(software.size())));
            int title = random.nextInt(size.titles());
            if (!isPersonal(title)) {
                present.put("t" + title, present(title));
            }
        }
        List<String> people = i % 23 == 0 ? List.of("u" + i, "u" + random.nextInt(size.devices()))
                .stream().distinct().toList() : List.of("u" + i);
        return new Device("d" + i, "QB-" + i, ou(), people, Facts.of(facts), List.copyOf(installed),
                List.copyOf(present.values()));
    }

    /** Equal texts are one object, as they are after an estate file or the server's records were read. */
    private String shared(String text) {
        return texts.computeIfAbsent(text, t -> t);
    }

    private final Map<String, Present> presents = new TreeMap<>();

    private Present present(int title) {
        String version = VERSIONS.get(random.nextInt(4));
        String by = random.nextInt(3) == 0 ? "a" + (title % size.assignments()) : null;
        return presents.computeIfAbsent(title + " " + version + " " + by,
                k -> new Present("t" + title, Version.of(version), null, by));
    }

    private static boolean isPersonal(int title) {
        return title % 10 == 9;
    }

    /** Sizes go from ten to a tenth of the fleet, evenly by their order of magnitude. */
    private List<Group> groups() {
        List<Group> groups = new ArrayList<>();
        double most = Math.log10(Math.max(20, size.devices() / 10.0));
        for (int g = 0; g < size.groups(); g++) {
            int members = (int) Math.pow(10, 1 + random.nextDouble() * (most - 1));
            Set<Target> all = new LinkedHashSet<>();
            boolean people = g % 4 == 3;
            for (int i = 0; i < members; i++) {
                all.add((people ? userTargets : deviceTargets).get(random.nextInt(size.devices())));
            }
            if (g > 10 && g % 10 == 0) {
                all.add(Target.group("g" + random.nextInt(g)));
            }
            groups.add(new Group("g" + g, "group-" + g, List.copyOf(all)));
        }
        return groups;
    }

    private List<DeviceCollection> collections() {
        List<DeviceCollection> collections = new ArrayList<>();
        for (int c = 0; c < size.collections(); c++) {
            collections.add(new DeviceCollection("c" + c, "Collection " + c, ous.get(random.nextInt(ous.size() / 4 + 1)).id(),
                    rule(c), List.of(), List.of()));
        }
        return collections;
    }

    /** The rule of this number; several share their predicates. */
    static String rule(int c) {
        return switch (c % 6) {
            case 0 -> "os.family eq \"windows\" and model eq \"Model " + c % 300 + "\"";
            case 1 -> "ramGiB ge " + (4 << c / 6 % 4) + " and site sw \"Site " + c % 20 + "\"";
            case 2 -> "os.version lt \"10.0." + (22000 + c * 7 % 4000) + "\" and arch eq \"x64\"";
            case 3 -> "not (manufacturer eq \"Maker " + c % 12 + "\") and lastSeen gt \"-P" + (1 + c % 30) + "D\"";
            case 4 -> "people[department eq \"Department " + c % 60 + "\"] or diskFreeGiB lt " + c % 100;
            default -> "software[name eq \"Made-up software " + c % 3000 + "\"] and os.family eq \"windows\"";
        };
    }

    private List<Title> titles() {
        List<Title> titles = new ArrayList<>();
        for (int t = 0; t < size.titles(); t++) {
            boolean related = size.catalogue() == Catalogue.FAMILIES && t % 8 == 0 && t + 2 < size.titles() && !isPersonal(t) && !isPersonal(t + 1)
                    && !isPersonal(t + 2);
            List<Need> needs = related ? List.of(new Need("t" + (t + 1), Version.of("1.0"))) : List.of();
            List<String> conflicts = new ArrayList<>();
            List<Need> knottedNeeds = new ArrayList<>(needs);
            List<Replacement> knottedReplaces = new ArrayList<>();
            if (size.catalogue() == Catalogue.KNOTTED) {
                knot(t, knottedNeeds, knottedReplaces, conflicts);
            }
            List<Replacement> replaces = related ? List.of(new Replacement("t" + (t + 2), Replacement.Mode.REMOVE_FIRST))
                    : knottedReplaces;
            List<Variant> variants = t % 3 == 0 ? List.of(new Variant("x64", "arch eq \"x64\""), new Variant("arm",
                    "arch eq \"arm64\"")) : List.of(new Variant("all", null));
            titles.add(new Title("t" + t, "Title " + t, isPersonal(t) ? Scope.USER : Scope.DEVICE,
                    t % 25 == 7 ? size.devices() / 20 : null, conflicts,
                    List.of(new Release(Version.of("2.0"), ReleaseState.OFFERED, List.of(), List.of(), variants),
                            new Release(Version.of("3.0"), ReleaseState.OFFERED, knottedNeeds, replaces, variants))));
        }
        return titles;
    }

    /** All relations lead to titles with higher numbers, so none leads back. */
    private void knot(int t, List<Need> needs, List<Replacement> replaces, List<String> conflicts) {
        int runtime = (size.titles() - 2) / 10 * 10;
        if (relations.nextInt(100) < 60 && t < runtime && !isPersonal(t)) {
            needs.add(new Need("t" + runtime, Version.of("2.0")));
        }
        boolean isInChain = t % 50 < 10 && !isPersonal(t) && !isPersonal(t + 1) && t + 1 < runtime;
        if (isInChain) {
            replaces.add(new Replacement("t" + (t + 1), Replacement.Mode.IN_PLACE));
        }
        for (int i = relations.nextInt(100) < 10 ? 2 : 1; i > 0 && t + 2 < runtime; i--) {
            int other = t + 1 + relations.nextInt(runtime - t - 1);
            boolean isKnown = needs.stream().anyMatch(need -> need.title().equals("t" + other))
                    || replaces.stream().anyMatch(one -> one.title().equals("t" + other)) || conflicts.contains("t" + other);
            if (isKnown || isPersonal(t) != isPersonal(other)) {
                continue;
            }
            switch (relations.nextInt(3)) {
                case 0 -> needs.add(new Need("t" + other, Version.of("1.0")));
                case 1 -> replaces.add(new Replacement("t" + other, Replacement.Mode.REMOVE_FIRST));
                default -> conflicts.add("t" + other);
            }
        }
    }

    private List<Assignment> assignments() {
        List<Assignment> assignments = new ArrayList<>();
        for (int a = 0; a < size.assignments(); a++) {
            assignments.add(assignment(a));
        }
        return assignments;
    }

    private Assignment assignment(int a) {
        Follows follows = a % 7 == 0 ? Follows.USER : Follows.DEVICE;
        int draw = random.nextInt(100);
        Intent intent = draw < 70 ? Intent.REQUIRED : draw < 90 ? Intent.AVAILABLE : Intent.UNINSTALL;
        Assignment assignment = Assignment.of("a" + a, a, Subject.title("t" + a % size.titles()), intent,
                List.of(target(follows))).withFollows(follows).withBinding(a % 40 == 0)
                .withPriority(400 + random.nextInt(3) * 100).withLeaving(a % 5 == 0 ? Leaving.REMOVE : Leaving.KEEP);
        if (a % 9 == 0) {
            assignment = assignment.withExclude(List.of(Target.group("g" + random.nextInt(size.groups()))));
        }
        if (a % 50 == 1) {
            assignment = assignment.withWithin(rule(random.nextInt(200)));
        }
        if (a % 60 == 2) {
            assignment = assignment.withWaves(List.of(Wave.to(List.of(Target.group("g1")), true), Wave.share(25, true),
                    Wave.share(75, false)));
        }
        return assignment;
    }

    private Target target(Follows follows) {
        int kind = random.nextInt(100);
        if (kind < 45) {
            // Most are near the leaves, some at the top.
            return Target.ou(random.nextInt(6) == 0 ? "o" + random.nextInt(Math.min(ous.size(), 30)) : ou());
        }
        if (kind < 82 || follows == Follows.USER && kind < 92) {
            int group = random.nextInt(size.groups());
            return Target.group("g" + (follows == Follows.USER ? group / 4 * 4 + 3 >= size.groups() ? 3 : group / 4 * 4 + 3
                    : group % 4 == 3 ? group - 1 : group));
        }
        if (follows == Follows.USER) {
            return kind < 100 - size.everyone() ? Target.user("u" + random.nextInt(size.devices())) : Target.ALL_USERS;
        }
        return kind < 92 && size.collections() > 0 ? Target.collection("c" + random.nextInt(size.collections()))
                : kind < 100 - size.everyone() ? Target.device("d" + random.nextInt(size.devices())) : Target.ALL_DEVICES;
    }
}
