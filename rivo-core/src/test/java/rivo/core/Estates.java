package rivo.core;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.resolve.Resolver;

/** Puts estates together for tests, a piece at a time. */
public final class Estates {

    public static final Instant AS_OF = Instant.parse("2026-11-23T08:00:00Z");

    private final List<Ou> ous = new ArrayList<>();
    private final List<User> users = new ArrayList<>();
    private final List<Device> devices = new ArrayList<>();
    private final List<Group> groups = new ArrayList<>();
    private final List<DeviceCollection> collections = new ArrayList<>();
    private final List<Title> titles = new ArrayList<>();
    private final List<Kit> kits = new ArrayList<>();
    private final List<Assignment> assignments = new ArrayList<>();

    /** The usual tree: root, labs with bench and stores, works; a device in each, two titles. */
    public static Estates usual() {
        return new Estates().ou("root", null).ou("labs", "root").ou("bench", "labs").ou("stores", "labs")
                .ou("works", "root").device("d-root", null).device("d-labs", "labs").device("d-bench", "bench")
                .device("d-stores", "stores").device("d-works", "works")
                .title(Title.of("siltscope", "Siltscope Lab", List.of(release("4.1.0"), release("4.2.0"))))
                .title(Title.of("mudview", "Mudview", List.of(release("1.0"))));
    }

    public static Release release(String version) {
        return Release.of(Version.of(version), List.of(new Variant("x64", null)));
    }

    public Estates ou(String id, @Nullable String parent) {
        ous.add(new Ou(id, id, "ou=" + id + ",dc=quillbrook,dc=example", parent, false));
        return this;
    }

    public Estates fence(String id) {
        ous.replaceAll(ou -> ou.id().equals(id) ? ou.withFence(true) : ou);
        return this;
    }

    public Estates user(String id, @Nullable String ou) {
        users.add(new User(id, id, id, ou, Facts.NONE));
        return this;
    }

    public Estates device(String id, @Nullable String ou, Present... present) {
        return device(new Device(id, id, ou, List.of(), Facts.NONE, List.of(), List.of(present)));
    }

    /** Puts a device in, or in the place of the one of its id. */
    public Estates device(Device device) {
        devices.removeIf(d -> d.id().equals(device.id()));
        devices.add(device);
        return this;
    }

    public Estates group(String id, Target... members) {
        groups.add(new Group(id, id, List.of(members)));
        return this;
    }

    public Estates collection(String id, String rule) {
        collections.add(new DeviceCollection(id, id, null, rule, List.of(), List.of()));
        return this;
    }

    public Estates title(Title title) {
        titles.removeIf(t -> t.id().equals(title.id()));
        titles.add(title);
        return this;
    }

    public Estates kit(String id, String... ofTitles) {
        kits.add(new Kit(id, id, List.of(ofTitles)));
        return this;
    }

    public Estates assignment(Assignment assignment) {
        assignments.add(assignment);
        return this;
    }

    /** An assignment of siltscope to the OUs, with the next seq: a1, a2 and so on. */
    public Estates assign(Intent intent, String... toOus) {
        return assignment(next("siltscope", intent, Arrays.stream(toOus).map(Target::ou).toArray(Target[]::new)));
    }

    /** What the next assignment would be. */
    public Assignment next(String title, Intent intent, Target... include) {
        int n = assignments.size() + 1;
        return Assignment.of("a" + n, n, Subject.title(title), intent, List.of(include));
    }

    public EstateParts parts() {
        return new EstateParts(AS_OF, ous, users, devices, groups, collections, titles, kits, assignments, List.of());
    }

    public Estate estate() {
        return Estate.of(parts());
    }

    public Resolver resolver() {
        return Resolver.of(estate());
    }

    /** Facts by name and value. */
    public static Facts facts(String... pairs) {
        Map<String, String> facts = new java.util.TreeMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            facts.put(pairs[i], pairs[i + 1]);
        }
        return Facts.of(facts);
    }
}
