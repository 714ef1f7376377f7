package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;

class EstateTest {

    private final Estate estate = Estates.usual().user("u1", "bench").user("u2", null).build();

    @Test
    void theDevicesOfAnOuAreOneRange() {
        int labs = estate.ous().position("labs");
        List<String> names = estate.devices().all().subList(estate.devices().from(labs), estate.devices().to(labs))
                .stream().map(Device::id).toList();
        assertThat(names).containsExactlyInAnyOrder("d-labs", "d-bench", "d-stores");
        assertThat(estate.devices().ownTo(labs) - estate.devices().from(labs)).isEqualTo(1);
    }

    @Test
    void aDeviceOutsideEveryOuStandsWithTheRoot() {
        assertThat(estate.devices().position("d-root")).isZero();
        assertThat(estate.devices().to(0)).isEqualTo(5);
    }

    @Test
    void peopleAreCountedInTheirOuAndAllAbove() {
        assertThat(estate.users().countIn(estate.ous().position("labs"))).isEqualTo(1);
        assertThat(estate.users().countIn(0)).isEqualTo(2);
    }

    @Test
    void anEstateWithoutAnythingButARootIsFine() {
        Estate empty = Estate.of(List.of(new Ou("r", "r", "", null, false)), List.of(), List.of(), List.of(),
                List.of());
        assertThat(empty.devices().to(0)).isZero();
    }

    @Test
    void aReplacedDeviceLeavesTheOldEstateAsItWas() {
        Device bench = estate.devices().find("d-bench");
        Estate after = estate.withDevice(bench.withReport(Map.of("arch", "x64"), List.of(), List.of()));
        assertThat(after.devices().find("d-bench").facts()).containsEntry("arch", "x64");
        assertThat(estate.devices().find("d-bench").facts()).isEmpty();
        assertThat(after.devices().sameOrderAs(estate.devices())).isTrue();
    }

    @Test
    void aDeviceThatMovesIsNotReplacedInPlace() {
        Device moved = new Device("d-bench", "d-bench", "works", List.of(), Map.of(), List.of(), List.of());
        assertThatThrownBy(() -> estate.withDevice(moved)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void anAssignmentNamesATitleAndOusThatExist() {
        Assignment bad = new Assignment("a9", 9, AssignmentState.ACTIVE, "moonware", Intent.REQUIRED,
                List.of("labs", "moon"), false, 500);
        assertThatThrownBy(() -> estate.withAssignments(List.of(bad))).isInstanceOfSatisfying(RefusedException.class,
                e -> assertThat(e.problems()).extracting(Problem::code).containsExactly("unknown-title",
                        "unknown-ou"));
    }

    @Test
    void anIdIsUsedOnce() {
        Ou root = new Ou("r", "r", "", null, false);
        Device twice = new Device("d", "d", null, List.of(), Map.of(), List.of(), List.of());
        assertThatThrownBy(() -> Estate.of(List.of(root), List.of(), List.of(twice, twice), List.of(), List.of()))
                .isInstanceOf(RefusedException.class).hasMessageContaining("Device d is listed twice");
    }

    @Test
    void aPriorityIsWithinItsBounds() {
        assertThatThrownBy(() -> new Assignment("a", 1, AssignmentState.ACTIVE, "t", Intent.REQUIRED, List.of(), false,
                1001)).isInstanceOf(RefusedException.class).hasMessageContaining("0 to 1000");
    }

    @Test
    void theNextSeqFollowsTheHighest() {
        assertThat(estate.assignments().nextSeq()).isEqualTo(1);
        assertThat(Estates.usual().assign("siltscope", Intent.REQUIRED, "labs").build().assignments().nextSeq())
                .isEqualTo(2);
    }

    @Test
    void newestPassesOverWithdrawnReleases() {
        assertThat(Estates.SILTSCOPE.newest().version()).hasToString("4.2.0");
        assertThat(Estates.EMPTY.newest()).isNull();
    }
}
