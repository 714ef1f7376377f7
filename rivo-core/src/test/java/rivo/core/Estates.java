package rivo.core;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Version;

/** Makes estates for tests: by hand, a piece at a time, or at random from a seed. */
public final class Estates {

    public static final Title SILTSCOPE = new Title("siltscope", "Siltscope Lab",
            List.of(offered("4.1.0"), offered("4.2.0"), new Release(Version.of("4.3.0-rc2"), ReleaseState.WITHDRAWN,
                    List.of("x64"))));
    public static final Title EMPTY = new Title("empty", "Emptyware", List.of());

    private final List<Ou> ous = new ArrayList<>();
    private final List<User> users = new ArrayList<>();
    private final List<Device> devices = new ArrayList<>();
    private final List<Title> titles = new ArrayList<>(List.of(SILTSCOPE, EMPTY));
    private final List<Assignment> assignments = new ArrayList<>();

    /** The usual tree: root, labs with bench and stores, works. */
    public static Estates usual() {
        return new Estates().ou("root", null).ou("labs", "root").ou("bench", "labs").ou("stores", "labs")
                .ou("works", "root").device("d-root", null).device("d-labs", "labs").device("d-bench", "bench")
                .device("d-stores", "stores").device("d-works", "works");
    }

    private static Release offered(String version) {
        return new Release(Version.of(version), ReleaseState.OFFERED, List.of("x64"));
    }

    public Estates ou(String id, @Nullable String parent) {
        ous.add(new Ou(id, id, "ou=" + id, parent, false));
        return this;
    }

    public Estates fence(String id) {
        ous.replaceAll(ou -> ou.id().equals(id) ? ou.withFence(true) : ou);
        return this;
    }

    public Estates device(String id, @Nullable String ou, Present... present) {
        devices.add(new Device(id, id, ou, List.of(), Map.of(), List.of(), List.of(present)));
        return this;
    }

    public Estates user(String id, @Nullable String ou) {
        users.add(new User(id, id, id, ou));
        return this;
    }

    public Estates assign(String title, Intent intent, String... at) {
        return add(title, intent, false, Assignment.USUAL_PRIORITY, AssignmentState.ACTIVE, at);
    }

    public Estates bind(String title, Intent intent, String... at) {
        return add(title, intent, true, Assignment.USUAL_PRIORITY, AssignmentState.ACTIVE, at);
    }

    public Estates retired(String title, Intent intent, String... at) {
        return add(title, intent, false, Assignment.USUAL_PRIORITY, AssignmentState.RETIRED, at);
    }

    public Estates withPriority(int priority, String title, Intent intent, String... at) {
        return add(title, intent, false, priority, AssignmentState.ACTIVE, at);
    }

    private Estates add(String title, Intent intent, boolean binding, int priority, AssignmentState state,
            String... at) {
        long seq = assignments.size() + 1L;
        assignments.add(new Assignment("a" + seq, seq, state, title, intent, List.of(at), binding, priority));
        return this;
    }

    public Estate build() {
        return Estate.of(ous, users, devices, titles, assignments);
    }

    /** The same estate from lists in another order. */
    public Estate shuffled(long seed) {
        Random random = new Random(seed);
        List.of(ous, users, devices, titles, assignments).forEach(list -> Collections.shuffle(list, random));
        return build();
    }

    /** A small estate in which everything happens often. */
    public static Estates random(long seed) {
        Random random = new Random(seed);
        Estates estates = new Estates().ou("o0", null);
        int ouCount = 2 + random.nextInt(10);
        for (int i = 1; i < ouCount; i++) {
            estates.ou("o" + i, "o" + random.nextInt(i));
            if (random.nextInt(4) == 0) {
                estates.fence("o" + i);
            }
        }
        int deviceCount = random.nextInt(25);
        for (int i = 0; i < deviceCount; i++) {
            String ou = random.nextInt(8) == 0 ? null : "o" + random.nextInt(ouCount);
            estates.device("d" + i, ou, random.nextInt(3) == 0 ? new Present[] {new Present("siltscope",
                    Version.of(random.nextBoolean() ? "4.1.0" : "4.2.0"))} : new Present[0]);
        }
        int assignmentCount = random.nextInt(12);
        for (int i = 0; i < assignmentCount; i++) {
            estates.add(random.nextInt(6) == 0 ? "empty" : "siltscope", Intent.values()[random.nextInt(2)],
                    random.nextInt(4) == 0, random.nextInt(5) == 0 ? random.nextInt(1001) : 500,
                    random.nextInt(6) == 0 ? AssignmentState.RETIRED : AssignmentState.ACTIVE,
                    targets(random, ouCount));
        }
        return estates;
    }

    private static String[] targets(Random random, int ouCount) {
        return random.ints(1 + random.nextInt(3), 0, ouCount).distinct().mapToObj(i -> "o" + i)
                .toArray(String[]::new);
    }
}
