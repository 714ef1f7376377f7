package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.estate.User;

/** For which devices a change can make a difference: those, and no others. */
class AffectedTest {

    private final Estate estate = Estates.usual().user("imara", "works").user("tobin", "bench")
            .device(new Device("d-labs", "", "labs", List.of("imara"), Facts.NONE, List.of(), List.of()))
            .device(new Device("d-bench", "", "bench", List.of("tobin", "imara"), Facts.NONE, List.of(), List.of()))
            .group("inner", Target.device("d-works"), Target.user("tobin")).group("outer", Target.group("inner"))
            .collection("c", "arch eq \"x64\"").estate();

    private List<String> affected(Estate after) {
        Audiences before = Audiences.of(estate);
        Step step = Step.between(before, before.follow(after));
        return step.affected().stream().mapToObj(p -> after.devices().at(p).id()).toList();
    }

    private Device device(String id) {
        return Objects.requireNonNull(estate.devices().find(id));
    }

    private Estate ou(String id, UnaryOperator<Ou> change) {
        return estate.withOus(estate.ous().all().stream().map(ou -> ou.id().equals(id) ? change.apply(ou) : ou).toList());
    }

    @Test
    void nobodyWhereNothingDiffers() {
        assertThat(affected(estate)).isEmpty();
        assertThat(affected(estate.withRequests(List.of()))).isEmpty();
    }

    @Test
    void whoReportsMovesOrHasOtherPeople() {
        assertThat(affected(estate.withDevice(device("d-works").withReport(Estates.facts("arch", "x64"), List.of(), List.of()))))
                .containsExactly("d-works");
        assertThat(affected(estate.withDevice(device("d-works").withOu("stores")))).containsExactly("d-works");
        assertThat(affected(estate.withDevice(device("d-stores").withPeople(List.of("tobin"))))).containsExactly("d-stores");
    }

    @Test
    void theDevicesOfAPersonWhoIsAnother() {
        List<User> users = estate.users().all().stream().map(u -> u.id().equals("imara")
                ? new User("imara", "imara", "", "labs", Facts.NONE) : u).toList();
        assertThat(affected(Estate.of(estate.parts().withUsers(users)))).contains("d-labs", "d-bench");
    }

    @Test
    void whoEntersOrLeavesAGroupAndTheDevicesOfItsPeople() {
        assertThat(affected(estate.withGroup(new Group("inner", "inner", List.of(Target.device("d-stores"), Target.user("tobin"))))))
                .containsExactlyInAnyOrder("d-works", "d-stores");
        assertThat(affected(estate.withGroup(new Group("inner", "inner", List.of(Target.device("d-works"), Target.user("imara"))))))
                .containsExactlyInAnyOrder("d-labs", "d-bench");
        assertThat(affected(estate.withGroup(new Group("outer", "outer", List.of())))).contains("d-works", "d-bench");
    }

    @Test
    void theMembersOfAGroupThatIsCalledOtherwise() {
        assertThat(affected(estate.withGroup(new Group("inner", "within", List.of(Target.device("d-works"), Target.user("tobin"))))))
                .containsExactlyInAnyOrder("d-works", "d-bench");
    }

    @Test
    void whoStandsUnderAnOuThatMovedOrIsCalledOtherwise() {
        assertThat(affected(ou("stores", o -> new Ou("stores", "stores", o.dn(), "works", false)))).containsExactly("d-stores");
        assertThat(affected(ou("labs", o -> new Ou("labs", "labs", "ou=other", "root", false))))
                .containsExactlyInAnyOrder("d-labs", "d-bench", "d-stores");
    }

    @Test
    void whoStandsBehindAFenceThatCameAndWhosePeopleDo() {
        assertThat(affected(ou("stores", o -> o.withFence(true)))).containsExactly("d-stores");
        assertThat(affected(ou("works", o -> o.withFence(true)))).as("imara is in works").containsExactlyInAnyOrder("d-works",
                "d-labs", "d-bench");
    }

    @Test
    void whoEntersOrLeavesACollection() {
        assertThat(affected(estate.withCollection(new DeviceCollection("c", "c", "root", "arch eq \"x64\"", List.of("d-root"),
                List.of())))).containsExactly("d-root");
        Estate filled = estate.withCollection(new DeviceCollection("c", "c", "root", null, List.of("d-root", "d-labs"), List.of()));
        Audiences before = Audiences.of(filled);
        Estate renamed = filled.withCollection(new DeviceCollection("c", "called otherwise", "root", null,
                List.of("d-root", "d-labs"), List.of()));
        assertThat(Step.between(before, before.follow(renamed)).affected().size()).isEqualTo(2);
        Estate based = filled.withCollection(new DeviceCollection("c", "c", null, null, List.of("d-root", "d-labs"), List.of()));
        assertThat(Step.between(before, before.follow(based)).affected().size()).as("fences may ask for its base").isEqualTo(2);
    }

    @Test
    void whoIsNewAndNobodyForWhoIsGone() {
        Estate more = Estate.of(estate.parts().withDevices(java.util.stream.Stream.concat(estate.devices().all().stream(),
                java.util.stream.Stream.of(Device.of("a-new-one", "", "labs", List.of()))).toList()));
        assertThat(affected(more)).contains("a-new-one");
        Audiences all = Audiences.of(more);
        Step back = Step.between(all, all.follow(estate));
        assertThat(back.devices().gone().toArray()).containsExactly(more.devices().position("a-new-one"));
        assertThat(back.devices().before(Positions.NONE).size()).isEqualTo(1);
    }
}
