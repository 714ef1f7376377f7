package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;

/**
 * What has been laid out for one estate answers for the next ones. Enough devices that a few changed ones do not have
 * everything laid out anew.
 */
class CarriedRulesTest {

    private static final int DEVICES = 700;
    private static final List<String> OUS = List.of("labs", "bench", "stores", "works");

    private final Random random = new Random(7);
    private final RandomRules rules = new RandomRules(8);
    private int next = DEVICES;

    private Estate start() {
        Estates estates = Estates.usual().user("imara", "works").collection("c", "ramGiB ge 8");
        for (int u = 0; u < 90; u++) {
            estates.user("u" + u, OUS.get(u % 4));
        }
        List<Target> members = new ArrayList<>();
        for (int i = 0; i < DEVICES; i++) {
            estates.device(rules.device(i).withPeople(i % 3 == 0 ? List.of("imara", "u" + i % 90) : List.of()));
            if (i % 5 == 0) {
                members.add(Target.device("d" + i));
            }
        }
        return estates.group("h", Target.user("imara"), Target.user("u3")).group("g", members.toArray(Target[]::new))
                .estate();
    }

    private String ou() {
        return OUS.get(random.nextInt(OUS.size()));
    }

    private static Estate with(Estate estate, UnaryOperator<EstateParts> change) {
        return Estate.of(change.apply(estate.parts()));
    }

    private Estate changed(Estate estate) {
        Device device = estate.devices().at(random.nextInt(estate.devices().size()));
        Device told = rules.device(0);
        return switch (random.nextInt(9)) {
            case 0, 1 -> estate.withDevice(device.withReport(told.facts(), told.software(), told.present()));
            case 2 -> estate.withDevice(device.withOu(random.nextInt(4) == 0 ? null : ou()));
            case 3 -> estate.withGroup(withOther(Objects.requireNonNull(estate.groups().get(random.nextBoolean() ? "g" : "h")), device));
            case 4 -> estate.withOus(estate.ous().all().stream().map(this::moved).toList());
            case 5 -> estate.withCollection(new DeviceCollection("c", random.nextBoolean() ? "C" : "D", ou(),
                    rules.rule(1).replace("collection eq \"C\"", "arch pr"), List.of(device.id()), List.of()));
            case 6 -> estate.at(estate.asOf().plusSeconds(random.nextInt(40) * 86_400L));
            case 7 -> with(estate, parts -> parts.withUsers(parts.users().stream().map(this::maybeRenamed).toList()));
            default -> random.nextBoolean() ? with(estate, parts -> parts.withDevices(with(parts.devices(), rules.device(next++))))
                    : without(estate, device);
        };
    }

    private static <T> List<T> with(List<T> all, T one) {
        List<T> more = new ArrayList<>(all);
        more.add(one);
        return more;
    }

    private static Estate without(Estate estate, Device gone) {
        return with(estate, parts -> parts.withDevices(parts.devices().stream().filter(d -> d != gone).toList())
                .withGroups(parts.groups().stream().map(g -> new Group(g.id(), g.name(), g.members().stream()
                        .filter(m -> !m.equals(Target.device(gone.id()))).toList())).toList())
                .withCollections(List.of(new DeviceCollection("c", "C", "labs", "ramGiB ge 8", List.of(), List.of()))));
    }

    private Group withOther(Group group, Device device) {
        Set<Target> members = new LinkedHashSet<>(group.members());
        Target member = random.nextBoolean() ? Target.device(device.id()) : random.nextBoolean() ? Target.user("u" + random.nextInt(90))
                : Target.group(group.id().equals("g") ? "h" : "g");
        if (!members.remove(member)) {
            members.add(member);
        }
        return new Group(group.id(), random.nextInt(5) == 0 ? group.name() + "x" : group.name(), List.copyOf(members));
    }

    private Ou moved(Ou ou) {
        return switch (ou.id()) {
            case "stores" -> new Ou("stores", "stores", ou.dn(), random.nextBoolean() ? "works" : "labs", random.nextBoolean());
            case "bench" -> new Ou("bench", random.nextBoolean() ? "Bench" : "Aft", "ou=bench" + random.nextInt(2), "labs", false);
            default -> ou;
        };
    }

    private User maybeRenamed(User user) {
        return random.nextInt(60) > 0 ? user : new User(user.id(), user.name() + "x", "", user.ou(), Facts.NONE);
    }

    private static List<String> ids(Audiences audiences, String rule) {
        return audiences.satisfying(rule, Scope.DEVICE).stream().mapToObj(p -> audiences.estate().devices().at(p).id()).toList();
    }

    @Test
    void aRuleNobodyHasAskedBeforeIsAnsweredAsIfEverythingWereLaidOutAnew() {
        Audiences audiences = Audiences.of(start());
        List<String> kept = new ArrayList<>();
        for (int step = 0; step < 150; step++) {
            for (int r = 0; r < 6; r++) {
                String rule = rules.rule(random.nextInt(3));
                kept.add(rule);
                audiences.satisfying(rule, Scope.DEVICE);
            }
            audiences = audiences.follow(changed(audiences.estate()));
            Audiences anew = Audiences.of(Estate.of(audiences.estate().parts()));
            for (int r = 0; r < 12; r++) {
                String rule = r < 6 ? rules.rule(random.nextInt(3)) : kept.get(random.nextInt(kept.size()));
                assertThat(ids(audiences, rule)).as("step %d: %s", step, rule).isEqualTo(ids(anew, rule));
            }
            assertThat(audiences.collection("c")).as("step %d", step).isEqualTo(anew.collection("c"));
        }
    }

    @Test
    void columnsGoAlongUntilManyHaveChanged() {
        Estate estate = start();
        CarriedColumns<String> columns = CarriedColumns.of("first", estate.devices().size());
        List<Device> all = estate.devices().all();
        Moves few = Moves.between(estate.devices(), estate.withDevice(all.get(3).withPeople(List.of("u7"))).devices());
        assertThat(columns.after(few, all.size(), c -> false, () -> "anew").columns()).as("nothing laid out").isEqualTo("anew");
        CarriedColumns<String> carried = columns.after(few, all.size(), c -> true, () -> "anew");
        assertThat(carried.columns()).isEqualTo("first");
        assertThat(carried.now(Positions.of(1, 3), p -> false).toArray()).containsExactly(1);
        assertThat(carried.now(Positions.of(1), p -> true).toArray()).containsExactly(1, 3);
        Moves many = Moves.between(estate.devices(), estate.withDevices(all.subList(0, 12).stream()
                .map(d -> d.withPeople(List.of("u7"))).toList()).devices());
        assertThat(carried.after(many, all.size(), c -> true, () -> "anew").columns()).isEqualTo("anew");
    }
}
