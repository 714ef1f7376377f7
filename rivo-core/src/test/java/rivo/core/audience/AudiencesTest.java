package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;

class AudiencesTest {

    private static Estates shared() {
        return Estates.usual().user("imara", "labs").user("tobin", "works").device(new Device("d-labs", "d-labs", "labs",
                List.of("tobin", "imara"), Estates.facts("arch", "x64"), List.of(), List.of()))
                .device(new Device("d-works", "d-works", "works", List.of("imara"), Facts.NONE, List.of(), List.of()));
    }

    private static List<String> devices(Audiences audiences, Positions positions) {
        return Arrays.stream(positions.toArray()).mapToObj(p -> audiences.estate().devices().at(p).id()).toList();
    }

    @Test
    void unitsStandByDeviceAndThenByPerson() {
        Audiences audiences = Audiences.of(shared().estate());
        assertThat(audiences.size(Scope.USER)).isEqualTo(3);
        assertThat(java.util.stream.IntStream.range(0, 3).mapToObj(u -> audiences.device(u, Scope.USER).id() + " "
                + audiences.user(u, Scope.USER))).containsExactly("d-labs imara", "d-labs tobin", "d-works imara");
        assertThat(audiences.unit(Scope.USER, "d-labs", "tobin")).isEqualTo(1);
        assertThat(audiences.unit(Scope.USER, "d-works", "tobin")).isEqualTo(-1);
    }

    @Test
    void anOuMeansItsDevicesOrTheDevicesOfItsPeople() {
        Audiences audiences = Audiences.of(shared().estate());
        assertThat(devices(audiences, audiences.reach(Target.ou("works"), Follows.DEVICE, Scope.DEVICE)))
                .containsExactly("d-works");
        assertThat(devices(audiences, audiences.reach(Target.ou("works"), Follows.USER, Scope.DEVICE)))
                .containsExactly("d-labs");
    }

    @Test
    void aGroupHoldsUnitsByDeviceAndByPerson() {
        Audiences audiences = Audiences.of(shared().group("g", Target.device("d-works"), Target.user("tobin")).estate());
        assertThat(audiences.holds(Target.group("g"), Follows.DEVICE, Scope.USER).toArray()).containsExactly(1, 2);
        assertThat(devices(audiences, audiences.holds(Target.group("g"), Follows.DEVICE, Scope.DEVICE)))
                .containsExactly("d-labs", "d-works");
    }

    @Test
    void groupsInACircleHoldTheUnion() {
        Audiences audiences = Audiences.of(Estates.usual().group("a", Target.group("b"), Target.device("d-labs"))
                .group("b", Target.group("c")).group("c", Target.group("a"), Target.device("d-works"))
                .group("outer", Target.group("b")).group("empty").estate());
        for (String group : List.of("a", "b", "c", "outer")) {
            assertThat(devices(audiences, audiences.reach(Target.group(group), Follows.DEVICE, Scope.DEVICE)))
                    .containsExactly("d-labs", "d-works");
        }
        assertThat(audiences.reach(Target.group("empty"), Follows.DEVICE, Scope.DEVICE).isEmpty()).isTrue();
        assertThat(audiences.chain("outer", Target.device("d-works"))).extracting(g -> g.id()).startsWith("outer", "b")
                .endsWith("c");
    }

    @Test
    void aLongChainOfGroupsAndCollectionsIsNoTrouble() {
        Estates estates = Estates.usual().group("g0", Target.device("d-labs")).collection("c0", "name eq \"d-labs\"");
        for (int i = 1; i < 3000; i++) {
            estates.group("g" + i, Target.group("g" + (i - 1)));
            estates.collection("c" + i, "collection eq \"C" + (i - 1) + "\"");
        }
        Audiences audiences = Audiences.of(estates.estate());
        assertThat(devices(audiences, audiences.reach(Target.group("g2999"), Follows.DEVICE, Scope.DEVICE)))
                .containsExactly("d-labs");
        assertThat(devices(audiences, audiences.collection("c2999"))).containsExactly("d-labs");
    }

    @Test
    void aRowKnowsEveryTargetThatHoldsTheDevice() {
        Estates estates = shared().group("g", Target.user("tobin"));
        Audiences audiences = Audiences.of(estates.estate());
        List<Pair> pairs = List.of(pair(audiences, estates, Follows.DEVICE, Target.ou("labs")),
                pair(audiences, estates, Follows.DEVICE, Target.ou("works")),
                pair(audiences, estates, Follows.USER, Target.group("g")),
                pair(audiences, estates, Follows.DEVICE, Target.group("g")));
        TargetRow row = audiences.row(audiences.estate().devices().position("d-labs"));
        assertThat(pairs.stream().map(pair -> row.has(pair.number()))).containsExactly(true, false, true, false);
    }

    private static Pair pair(Audiences audiences, Estates estates, Follows side, Target target) {
        return Pair.of(audiences, estates.next("siltscope", Intent.REQUIRED, target).withFollows(side), Scope.DEVICE).get(0);
    }

    @Test
    void whatCannotHaveChangedIsShared() {
        Estate before = shared().collection("x64", "arch eq \"x64\"").estate();
        Audiences audiences = Audiences.of(before);
        Positions x64 = audiences.collection("x64");
        Audiences sameAudience = audiences.follow(before.withRequests(List.of()));
        assertThat(sameAudience.sharesAllWith(audiences)).isTrue();
        Device works = Objects.requireNonNull(before.devices().find("d-works"));
        Audiences other = audiences.follow(before.withDevice(works.withReport(Estates.facts("arch", "x64"), List.of(),
                List.of())));
        assertThat(other.sharesAllWith(audiences)).isFalse();
        assertThat(other.units()).as("its people are the same").isSameAs(audiences.units());
        assertThat(devices(other, other.collection("x64"))).containsExactly("d-labs", "d-works");
        assertThat(audiences.collection("x64")).as("the estate before is as it was").isSameAs(x64);
    }

    @Test
    void theRankGoesByIdAndNotByPlace() {
        Audiences audiences = Audiences.of(Estates.usual().device("a-first", "works").estate());
        UnitRanks ranks = audiences.ranks(Scope.DEVICE);
        assertThat(audiences.device(ranks.unitAt(0), Scope.DEVICE).id()).isEqualTo("a-first");
        assertThat(ranks.rankOf(ranks.unitAt(3))).isEqualTo(3);
        assertThat(devices(audiences, ranks.first(Positions.range(0, 6), 2))).containsExactlyInAnyOrder("a-first", "d-bench");
    }

    @Test
    void aCollectionNobodyHadAskedForIsRightAfterAChangeToo() {
        Estate before = Estates.usual().collection("c0", "arch eq \"x64\"").collection("c1", "collection eq \"c0\"").estate();
        Audiences audiences = Audiences.of(before);
        audiences.collection("c0");
        audiences.satisfying("collection ne \"c0\"", Scope.DEVICE);
        Estate after = before.withDevices(before.devices().all().stream().limit(2)
                .map(d -> d.withReport(Estates.facts("arch", "x64"), List.of(), List.of())).toList());
        Audiences followed = audiences.follow(after);
        assertThat(devices(followed, followed.collection("c1"))).containsExactly("d-root", "d-labs");
    }
}
