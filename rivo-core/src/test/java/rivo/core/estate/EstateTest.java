package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;

class EstateTest {

    @Test
    void devicesStandInOuOrder() {
        Estate estate = Estates.usual().estate();
        assertThat(estate.devices().all()).extracting(Device::id).containsExactly("d-root", "d-labs", "d-bench", "d-stores",
                "d-works");
        int labs = estate.ous().position("labs");
        assertThat(estate.devices().from(labs)).isEqualTo(1);
        assertThat(estate.devices().to(labs)).isEqualTo(4);
        assertThat(estate.devices().ownTo(labs)).isEqualTo(2);
    }

    @Test
    void peopleAreCountedWithAllBelow() {
        Estate estate = Estates.usual().user("u1", "bench").user("u2", null).user("u3", "works").estate();
        assertThat(estate.users().countIn(0)).isEqualTo(3);
        assertThat(estate.users().countIn(estate.ous().position("labs"))).isEqualTo(1);
    }

    @Test
    void aReportSharesEverythingButTheDevice() {
        Estate before = Estates.usual().estate();
        Device device = Objects.requireNonNull(before.devices().find("d-labs"));
        Estate after = before.withDevice(device.withReport(Estates.facts("arch", "x64"), List.of(), List.of()));
        assertThat(after.devices().sameOrderAs(before.devices())).isTrue();
        assertThat(after.ous()).isSameAs(before.ous());
        assertThat(after.devices().at(0)).isSameAs(before.devices().at(0));
        assertThat(before.devices().at(1).facts().isEmpty()).as("the estate before is as it was").isTrue();
    }

    @Test
    void aMoveLaysTheDevicesOutAnew() {
        Estate before = Estates.usual().estate();
        Estate after = before.withDevice(Objects.requireNonNull(before.devices().find("d-works")).withOu("bench"));
        assertThat(after.devices().all()).extracting(Device::id).containsExactly("d-root", "d-labs", "d-bench", "d-works",
                "d-stores");
        assertThat(after.devices().sameOrderAs(before.devices())).isFalse();
    }

    @Test
    void anAssignmentSpeaksForEveryTitleOfItsKit() {
        Estates estates = Estates.usual().kit("k", "siltscope", "mudview");
        Estate estate = estates.assignment(Assignment.of("a9", 9, Subject.kit("k"), Intent.REQUIRED,
                List.of(Target.ALL_DEVICES))).estate();
        assertThat(estate.assignments().of("mudview")).extracting(Assignment::id).containsExactly("a9");
        assertThat(estate.assignments().of("lost")).isEmpty();
        assertThat(estate.assignments().nextSeq()).isEqualTo(10);
    }

    @Test
    void thePartsOfAnEstateMakeTheSameAgain() {
        Estate estate = Estates.usual().user("u1", "bench").assign(Intent.REQUIRED, "labs").estate();
        assertThat(Estate.of(estate.parts()).parts()).isEqualTo(estate.parts());
    }
}
