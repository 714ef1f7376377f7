package rivo.server.assignment;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Leaving;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.server.SmallEstate;
import rivo.server.assignment.Delivery.Courtesy;
import rivo.server.assignment.Delivery.Deadline;
import rivo.server.assignment.Delivery.Deferral;
import rivo.server.assignment.Delivery.Interruption;
import rivo.server.assignment.Delivery.Tell;

/** Assignments and collections of every form, in an estate that has what they name. */
public final class RandomDocuments {

    private static final List<Target> FOR_DEVICES = List.of(Target.ALL_DEVICES, Target.ou("labs"), Target.ou("works"), Target.group("g1"),
            Target.device("d1"), Target.collection("c1"));
    private static final List<Target> FOR_PEOPLE = List.of(Target.ALL_USERS, Target.ou("labs"), Target.group("g1"), Target.user("u1"));

    private final Random random;

    public RandomDocuments(long seed) {
        this.random = new Random(seed);
    }

    /** With some assignments and collections. */
    public Estate estate() {
        EstateParts parts = SmallEstate.with(List.of()).parts();
        List<Assignment> assignments = new ArrayList<>();
        for (int i = 1; i <= 6; i++) {
            assignments.add(assignment("a" + i, i));
        }
        return Estate.of(parts.withGroups(List.of(new Group("g1", "lab-analysts", List.of(Target.user("u1"), Target.device("d1")))))
                .withKits(List.of(new Kit("k1", "Lab bench", List.of("siltscope", "empty"))))
                .withCollections(List.of(collection("c1"), collection("c2"))).withAssignments(assignments));
    }

    private DeviceCollection collection(String id) {
        return new DeviceCollection(id, chance() ? "" : "Collection " + id, chance() ? null : one(List.of("root", "labs")),
                chance() ? null : one(List.of("ramGiB ge 8", "lastSeen gt \"-P14D\"")), chance() ? List.of() : List.of("d1"), List.of());
    }

    public Assignment assignment(String id, long seq) {
        Follows follows = one(List.of(Follows.values()));
        List<Target> targets = follows == Follows.DEVICE ? FOR_DEVICES : FOR_PEOPLE;
        List<Target> all = new ArrayList<>(FOR_DEVICES);
        all.addAll(FOR_PEOPLE);
        return Assignment.of(id, seq, chance() ? Subject.title("siltscope") : Subject.kit("k1"), one(List.of(Intent.values())), some(targets))
                .withState(one(List.of(AssignmentState.values()))).withFollows(follows).withExclude(some(all))
                .withWithin(chance() ? null : "arch eq \"x64\"").withBase(chance() ? null : "labs").withBinding(chance())
                .withPriority(chance() ? 500 : random.nextInt(1001)).withPin(chance() ? null : Version.of("4.2"))
                .withFrom(chance() ? null : Instant.parse("2026-11-20T00:00:00Z").plusSeconds(random.nextInt(1000)))
                .withLeaving(one(List.of(Leaving.values()))).withWaves(chance() ? List.of() : List.of(Wave.to(some(all), chance()),
                        new Wave(List.of(), new BigDecimal(one(List.of("25", "12.5", "0"))), chance())));
    }

    /** @param waves whether the assignment has some */
    Delivery delivery(boolean waves) {
        return new Delivery(chance() ? null : chance() ? new Deadline(Instant.parse("2026-12-04T18:00:00Z"), null)
                : new Deadline(null, "2026-12-04T18:00"), one(List.of("wait", "deadline-wins", "ignore")), chance() ? null : courtesy(),
                chance() ? Map.of() : Map.of("languages", "en,cy", "parts", "viewer"), chance() ? null : "CHG-2041",
                false, waves && chance() ? rollout() : null);
    }

    private Rollout rollout() {
        Rollout.Opens opens = new Rollout.Opens(chance() ? null : Instant.parse("2026-11-21T08:00:00Z"), chance() ? null : "P1D",
                null, chance() ? null : (Integer) 20);
        return new Rollout(chance(), chance() ? null : opens, chance() ? null : new Rollout.Stops(3, chance() ? null : (Integer) 10),
                chance() ? null : Instant.parse("2026-11-20T08:00:00Z"));
    }

    private Courtesy courtesy() {
        Tell tell = new Tell(chance() ? List.of() : List.of("P1D", "PT1H"), chance() ? null : (Boolean) chance(), chance() ? null : (Boolean) chance());
        return new Courtesy(chance() ? null : tell, chance(), chance() ? null : new Interruption(one(List.of("none", "ask", "night", "now")),
                chance() ? null : new Deferral(chance() ? null : (Integer) 3, chance() ? null : "PT8H")),
                chance() ? null : new Interruption("wait", null));
    }

    private boolean chance() {
        return random.nextBoolean();
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private List<Target> some(List<Target> of) {
        return of.stream().filter(t -> random.nextInt(3) == 0).distinct().toList();
    }
}
