package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Random;
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

    /** Everything one can ask of the order, of all devices and people. */
    private static List<String> order(Estate estate) {
        List<String> said = new ArrayList<>();
        estate.devices().all().forEach(d -> said.add(d.id() + " " + d.ou() + " " + estate.devices().positionOf(d.id())));
        estate.users().all().forEach(u -> said.add(u.id() + " " + u.ou() + " " + estate.users().positionOf(u.id())));
        for (int ou = 0; ou < estate.ous().size(); ou++) {
            said.add(estate.ous().at(ou).id() + " " + estate.devices().from(ou) + " " + estate.devices().ownTo(ou) + " "
                    + estate.devices().to(ou) + " " + estate.users().from(ou) + " " + estate.users().to(ou));
        }
        return said;
    }

    @Test
    void whoeverMovesStandsWhereOneMadeAnewPutsThem() {
        List<String> ids = List.of("root", "labs", "bench", "stores", "works");
        for (int seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            Estates estates = Estates.usual();
            for (int i = 0; i < 30; i++) {
                estates.device("d" + random.nextInt(99), random.nextInt(6) == 0 ? null : ids.get(random.nextInt(5)));
                estates.user("u" + i, random.nextInt(6) == 0 ? null : ids.get(random.nextInt(5)));
            }
            Estate estate = estates.estate();
            for (int step = 0; step < 5; step++) {
                List<Device> moving = new ArrayList<>(estate.devices().all());
                Collections.shuffle(moving, random);
                estate = estate.withDevices(moving.subList(0, random.nextInt(8)).stream().map(d -> d.withOu(
                        random.nextInt(6) == 0 ? null : ids.get(random.nextInt(5)))).toList());
                assertThat(order(estate)).as("seed %d", seed).isEqualTo(order(Estate.of(estate.parts())));
                boolean swapped = random.nextInt(3) == 0;
                estate = estate.withOus(estate.ous().all().stream().map(ou -> switch (ou.id()) {
                    case "stores" -> new Ou("stores", "stores", ou.dn(), swapped ? "works" : "labs", false);
                    case "bench" -> new Ou("bench", swapped ? "Zeta" : "Alpha", ou.dn(), "labs", swapped);
                    default -> ou;
                }).toList());
                assertThat(order(estate)).as("seed %d", seed).isEqualTo(order(Estate.of(estate.parts())));
            }
        }
    }

    @Test
    void whatHasNoOuGoesToTheNewRoot() {
        Estate before = Estates.usual().device("loose", null).user("someone", null).estate();
        List<Ou> ous = new ArrayList<>(List.of(new Ou("top", "top", "dc=example", null, false)));
        before.ous().all().forEach(ou -> ous.add(ou.parent() == null ? new Ou("root", "root", ou.dn(), "top", false) : ou));
        Estate after = before.withOus(ous);
        assertThat(order(after)).isEqualTo(order(Estate.of(before.parts().withOus(ous))));
        assertThat(after.devices().positionOf("loose")).isLessThan(after.devices().ownTo(0));
    }

    @Test
    void anOuThatIsInUseCannotGo() {
        Estate estate = Estates.usual().estate();
        List<Ou> without = estate.ous().all().stream().filter(ou -> !ou.id().equals("works")).toList();
        assertThatThrownBy(() -> estate.withOus(without)).isInstanceOf(RefusedException.class).hasMessageContaining("works");
    }

    @Test
    void anOuBelowItselfIsRefused() {
        Estate estate = Estates.usual().estate();
        List<Ou> circle = estate.ous().all().stream().map(ou -> ou.id().equals("labs")
                ? new Ou("labs", "labs", ou.dn(), "bench", false) : ou).toList();
        assertThatThrownBy(() -> estate.withOus(circle)).isInstanceOf(RefusedException.class).hasMessageContaining("below itself");
    }

    @Test
    void aDeviceCannotMoveToAnOuThatIsNotThere() {
        Estate estate = Estates.usual().estate();
        Device lost = estate.devices().at(0).withOu("nowhere");
        assertThatThrownBy(() -> estate.withDevice(lost)).isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("nowhere");
    }
}
