package rivo.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.NaiveModel;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.estate.Version;
import rivo.core.rehearse.Rehearsal.TitleDifference;

class RehearsalTest {

    private static TitleDifference difference(Estate before, Estate after) {
        return Rehearsal.of(before, after, List.of("siltscope")).titles().get(0);
    }

    private static List<String> names(Estate estate, DeviceSet set) {
        return set.stream().mapToObj(p -> estate.devices().at(p).id()).sorted().toList();
    }

    @Test
    void itCountsWhoGainsAndWhoLoses() {
        Estate before = Estates.usual().assign("siltscope", REQUIRED, "works").build();
        Estate after = Estates.usual().retired("siltscope", REQUIRED, "works").assign("siltscope", REQUIRED, "bench")
                .build();
        TitleDifference difference = difference(before, after);
        assertThat(names(after, difference.gains())).containsExactly("d-bench");
        assertThat(names(after, difference.loses())).containsExactly("d-works");
        assertThat(difference.removes().isEmpty()).isTrue();
    }

    @Test
    void aRemovalThatWillReallyHappenIsToldFromOneThatWillNot() {
        Estates base = Estates.usual().device("d-has", "works", new Present("siltscope", Version.of("4.1.0")));
        Estate before = base.build();
        Estate after = base.assign("siltscope", UNINSTALL, "works").build();
        TitleDifference difference = difference(before, after);
        assertThat(names(after, difference.removes())).containsExactly("d-has", "d-works");
        assertThat(names(after, difference.removesPresent())).containsExactly("d-has");
    }

    @Test
    void onlyWhatIsNotThereYetIsFetched() {
        Estates base = Estates.usual().device("d-new", "works", new Present("siltscope", Version.of("4.2")))
                .device("d-old", "works", new Present("siltscope", Version.of("4.1.0")))
                .device("d-unknown", "works", new Present("siltscope", null));
        Estate before = base.build();
        Estate after = base.assign("siltscope", REQUIRED, "works").build();
        assertThat(names(after, difference(before, after).fetches())).containsExactly("d-old", "d-unknown", "d-works");
    }

    @Test
    void whatBecomesContestedAndWhatIsSettledIsSaid() {
        Estate calm = Estates.usual().assign("siltscope", REQUIRED, "labs").build();
        Estate torn = Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", UNINSTALL, "labs")
                .build();
        assertThat(difference(calm, torn).newlyContested().size()).isEqualTo(3);
        assertThat(difference(calm, torn).loses().size()).isEqualTo(3);
        assertThat(difference(torn, calm).settled().size()).isEqualTo(3);
    }

    @Test
    void anEditThatChangesNothingIsEmpty() {
        Estate estate = Estates.usual().assign("siltscope", REQUIRED, "root").build();
        Assignment more = new Assignment("a9", 9, AssignmentState.ACTIVE, "siltscope", REQUIRED, List.of("bench"),
                false, 500);
        assertThat(difference(estate, estate.withAssignments(List.of(more))).isEmpty()).isTrue();
    }

    @Test
    void anEditOfOneTitleChangesNoOther() {
        Estate before = Estates.usual().assign("siltscope", REQUIRED, "root").build();
        Estate after = before.withAssignments(List.of(new Assignment("a9", 9, AssignmentState.ACTIVE, "empty",
                UNINSTALL, List.of("root"), false, 500)));
        assertThat(difference(before, after).isEmpty()).isTrue();
    }

    @Test
    void theTwoSidesHaveTheSameDevices() {
        Estate before = Estates.usual().build();
        Estate after = Estates.usual().device("d-more", "labs").build();
        assertThatThrownBy(() -> difference(before, after)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void itFindsWhatTheNaiveModelFinds() {
        for (long seed = 0; seed < 1000; seed++) {
            Estate before = Estates.random(seed).build();
            Estate after = before.withAssignments(before.assignments().all().stream().filter(a -> a.seq() % 2 == 0)
                    .map(Assignment::retired).toList());
            TitleDifference difference = difference(before, after);
            for (Device device : before.devices().all()) {
                int position = before.devices().position(device.id());
                boolean was = required(before, device);
                boolean is = required(after, device);
                assertThat(difference.gains().contains(position)).as("seed %d", seed).isEqualTo(is && !was);
                assertThat(difference.loses().contains(position)).as("seed %d", seed).isEqualTo(was && !is);
            }
        }
    }

    private static boolean required(Estate estate, Device device) {
        return new NaiveModel(estate).outcome(device, Estates.SILTSCOPE).startsWith("required");
    }
}
