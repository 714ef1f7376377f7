package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.RandomEstates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;

/** A row of targets, and the pairs that are asked by it, against the sets of all units. */
class TargetRowsTest {

    private static final int ESTATES = 1500;

    private static List<Pair> pairs(Audiences audiences, Scope scope) {
        List<Pair> pairs = new ArrayList<>();
        for (Assignment assignment : audiences.estate().assignments().all()) {
            pairs.addAll(Pair.of(audiences, assignment, scope));
        }
        return pairs;
    }

    /** Every pair that a unit's row lets pass says there what it comes to among all units, and the others come to nothing. */
    private static void check(Audiences audiences, long seed) {
        for (Scope scope : Scope.values()) {
            List<Pair> asked = pairs(audiences, scope);
            List<Pair> all = pairs(audiences, scope);
            for (int unit = 0; unit < audiences.size(scope); unit++) {
                TargetRow row = audiences.row(audiences.devicePosition(unit, scope));
                for (int i = 0; i < asked.size(); i++) {
                    Pair.Split split = all.get(i).among(new Remaining(0, audiences.size(scope)));
                    Pair.Standing expected = split.now().contains(unit) ? Pair.Standing.CANDIDATE
                            : split.later().contains(unit) ? Pair.Standing.LATER : Pair.Standing.NO_CANDIDATE;
                    String what = "seed " + seed + ", " + asked.get(i).assignment().id() + " through "
                            + asked.get(i).target() + " at unit " + unit + " of scope " + scope;
                    if (row.has(asked.get(i).number())) {
                        assertThat(asked.get(i).at(unit, row)).as(what).isEqualTo(expected);
                        assertThat(all.get(i).at(unit, row)).as(what + ", known").isEqualTo(expected);
                    } else {
                        assertThat(expected).as(what).isEqualTo(Pair.Standing.NO_CANDIDATE);
                    }
                }
            }
        }
    }

    @Test
    void whatARowLetsPassSaysWhatTheSetsSay() {
        for (long seed = 0; seed < ESTATES; seed++) {
            check(Audiences.of(Estate.of(RandomEstates.parts(seed))), seed);
        }
    }

    @Test
    void rowsFollowAChangedEstate() {
        for (long seed = 0; seed < ESTATES / 3; seed++) {
            Random random = new Random(seed);
            Audiences audiences = Audiences.of(Estate.of(RandomEstates.parts(seed)));
            check(audiences, seed);
            Estate estate = audiences.estate();
            Device device = estate.devices().at(random.nextInt(estate.devices().size()));
            check(audiences.follow(estate.withDevice(device.withReport(Estates.facts("arch", "x64"), List.of(), List.of()))),
                    seed);
            check(audiences.follow(estate.withDevice(device.withOu(null))), seed);
        }
    }

    @Test
    void rowsFollowManyMovesThatNobodyAskedBetween() {
        for (long seed = 0; seed < ESTATES / 3; seed++) {
            Random random = new Random(seed);
            Audiences audiences = Audiences.of(Estate.of(RandomEstates.parts(seed)));
            check(audiences, seed);
            for (int steps = random.nextInt(4); steps >= 0; steps--) {
                audiences = audiences.follow(changed(audiences.estate(), random));
            }
            check(audiences, seed);
        }
    }

    /** With a device that has moved, left or come, somebody who has moved, or a group that lists something else; most often the first. */
    private static Estate changed(Estate estate, Random random) {
        DirectoryChange change = DirectoryChange.none(estate.asOf());
        String ou = estate.ous().at(random.nextInt(estate.ous().size())).id();
        Device device = estate.devices().size() == 0 ? Device.of("d-new", "d-new", ou, List.of()) : estate.devices().at(random.nextInt(estate.devices().size()));
        List<Group> groups = List.copyOf(estate.groups().values());
        int what = estate.devices().size() == 0 ? 1 : random.nextInt(8);
        if (what == 0) {
            return estate.with(change.withDevices(List.of(), Set.of(device.id())));
        }
        if (what == 1) {
            return estate.with(change.withDevices(List.of(Device.of("d-new", "d-new", ou, device.people())), Set.of()));
        }
        if (what == 2 && !groups.isEmpty()) {
            Group group = groups.get(random.nextInt(groups.size()));
            return estate.withGroup(new Group(group.id(), group.name(), List.of(Target.device(device.id()))));
        }
        if (what == 3 && estate.users().size() > 0) {
            User user = estate.users().at(random.nextInt(estate.users().size()));
            return estate.with(change.withUsers(List.of(new User(user.id(), user.name(), user.fullName(), ou, user.facts())), Set.of()));
        }
        return estate.withDevice(device.withOu(ou));
    }

    /** The targets of the usual estate that hold a device, or its people, after the side by which they do. */
    private static TreeSet<String> holding(Audiences audiences, String device) {
        List<Target> targets = List.of(Target.ALL_DEVICES, Target.ou("root"), Target.ou("labs"), Target.ou("works"),
                Target.device(device), Target.group("inner"), Target.group("outer"), Target.group("people"),
                Target.collection("x64"), Target.ALL_USERS, Target.user("imara"));
        TreeSet<String> holding = new TreeSet<>();
        int[][] numbers = new int[targets.size()][2];
        for (Follows side : Follows.values()) {
            for (int i = 0; i < numbers.length; i++) {
                numbers[i][side.ordinal()] = audiences.number(targets.get(i), side);
            }
        }
        TargetRow row = audiences.row(audiences.estate().devices().position(device));
        for (Follows side : Follows.values()) {
            for (int i = 0; i < numbers.length; i++) {
                if (row.has(numbers[i][side.ordinal()])) {
                    holding.add(side.word() + " " + targets.get(i));
                }
            }
        }
        return holding;
    }

    private static Estates usual() {
        return Estates.usual().user("imara", "works").device(new Device("d-bench", "d-bench", "bench", List.of("imara"),
                Estates.facts("arch", "x64"), List.of(), List.of())).group("inner", Target.device("d-bench"))
                .group("outer", Target.group("inner")).group("people", Target.user("imara"))
                .collection("x64", "arch eq \"x64\"");
    }

    @Test
    void aRowNamesEveryTargetOfEitherSide() {
        assertThat(holding(Audiences.of(usual().estate()), "d-bench")).containsExactly("device all-devices",
                "device collection:x64", "device device:d-bench", "device group:inner", "device group:outer",
                "device ou:labs", "device ou:root", "user all-users", "user group:people", "user ou:root", "user ou:works",
                "user user:imara");
    }

    @Test
    void aRowForgetsAGroupThatTheDeviceHasLeft() {
        Audiences audiences = Audiences.of(usual().estate());
        assertThat(holding(audiences, "d-bench")).contains("device group:outer");
        Estate without = audiences.estate().withGroup(new Group("inner", "inner", List.of()));
        Audiences after = audiences.follow(without);
        assertThat(holding(after, "d-bench")).doesNotContain("device group:inner", "device group:outer")
                .contains("user group:people");
        assertThat(holding(audiences, "d-bench")).contains("device group:outer");
    }

    @Test
    void aRowIsSimpleWithOnePersonAtMostAndNoFenceAbove() {
        Estates estates = usual().user("tobin", "stores").fence("works")
                .device(new Device("d-stores", "d-stores", "stores", List.of("tobin"), Facts.NONE, List.of(), List.of()))
                .device(new Device("d-labs", "d-labs", "labs", List.of("imara", "tobin"), Facts.NONE, List.of(), List.of()));
        Audiences audiences = Audiences.of(estates.estate());
        assertThat(isSimple(audiences, "d-stores")).isTrue();
        assertThat(isSimple(audiences, "d-root")).as("without a person").isTrue();
        assertThat(isSimple(audiences, "d-labs")).as("with two people").isFalse();
        assertThat(isSimple(audiences, "d-works")).as("behind a fence").isFalse();
        assertThat(isSimple(audiences, "d-bench")).as("with a person behind a fence").isFalse();
    }

    private static boolean isSimple(Audiences audiences, String device) {
        return audiences.row(audiences.estate().devices().position(device)).isSimple();
    }

    @Test
    void membershipsTellForEachPositionTheSetsThatHoldIt() {
        List<Positions> sets = List.of(Positions.of(0, 2), Positions.NONE, Positions.range(1, 4));
        int[] names = {70, 5, 9};
        Memberships memberships = new Memberships(4, sets, names);
        for (int p = 0; p < 4; p++) {
            TargetRow row = new TargetRow(10);
            memberships.addTo(row, p);
            for (int s = 0; s < names.length; s++) {
                assertThat(row.has(names[s])).isEqualTo(sets.get(s).contains(p));
            }
        }
        assertThat(memberships.isOf(4, List.copyOf(sets), names.clone())).isTrue();
        assertThat(memberships.isOf(5, sets, names)).isFalse();
        assertThat(memberships.isOf(4, sets, new int[] {70, 5, 8})).isFalse();
        assertThat(memberships.isOf(4, List.of(Positions.of(0, 2), Positions.NONE, Positions.range(1, 4)), names)).isFalse();
    }

    @Test
    void aTargetIsNumberedWhenAPairIsMadeOfIt() {
        Audiences audiences = Audiences.of(usual().estate());
        Estates estates = usual();
        Pair first = Pair.of(audiences, estates.next("siltscope", Intent.REQUIRED, Target.ou("labs")), Scope.DEVICE).get(0);
        Pair same = Pair.of(audiences, estates.next("mudview", Intent.UNINSTALL, Target.ou("labs")), Scope.DEVICE).get(0);
        Pair side = Pair.of(audiences, estates.next("mudview", Intent.REQUIRED, Target.ou("labs")).withFollows(Follows.USER),
                Scope.DEVICE).get(0);
        assertThat(same.number()).isEqualTo(first.number());
        assertThat(side.number()).isNotEqualTo(first.number());
    }
}
