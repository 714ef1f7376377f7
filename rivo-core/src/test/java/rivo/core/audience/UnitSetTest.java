package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.core.RandomEstates;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Scope;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;

/** Sets of devices and of people on devices, counted and listed against the devices one by one, in random estates. */
class UnitSetTest {

    private static final long SEEDS = 60;

    private interface Check {
        void of(Audiences audiences, UnitSet units, String what);
    }

    private static void forTitlesOfRandomEstates(Check check) {
        int checkedPersonal = 0;
        for (long seed = 0; seed < SEEDS; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (TitleOutcomes outcomes : resolver.all().values()) {
                check.of(resolver.audiences(), outcomes.decided(), "seed " + seed + ", " + outcomes.title().id());
                checkedPersonal += outcomes.title().scope() == Scope.USER && !outcomes.decided().isEmpty() ? 1 : 0;
            }
        }
        assertThat(checkedPersonal).as("titles per person that somebody has").isPositive();
    }

    /** Each unit as "device user", found without the sets' own ways. */
    private static List<String> oneByOne(Audiences audiences, UnitSet units, int from, int to) {
        List<String> found = new ArrayList<>();
        for (int d = from; d < to; d++) {
            Device device = audiences.estate().devices().at(d);
            for (String user : units.scope() == Scope.DEVICE ? List.of("") : device.people().stream().sorted().toList()) {
                if (units.contains(audiences.unit(units.scope(), device.id(), user))) {
                    found.add(device.id() + " " + user);
                }
            }
        }
        return found;
    }

    private static String words(Unit unit) {
        return unit.device().id() + " " + unit.user();
    }

    @Test
    void eachUnitIsItsDeviceAndItsPerson() {
        forTitlesOfRandomEstates((audiences, units, what) -> {
            List<String> expected = oneByOne(audiences, units, 0, audiences.estate().devices().size());
            assertThat(audiences.each(units).map(UnitSetTest::words)).as(what).isEqualTo(expected);
            assertThat(units.size()).as(what).isEqualTo(expected.size());
            assertThat(audiences.ranked(units).map(UnitSetTest::words)).as(what).isEqualTo(expected.stream().sorted().toList());
        });
    }

    @Test
    void theDevicesOfUnitsAreCountedOnce() {
        forTitlesOfRandomEstates((audiences, units, what) -> {
            int devices = audiences.estate().devices().size();
            DeviceSet of = audiences.devicesOf(units);
            assertThat(of.stream().mapToObj(d -> audiences.estate().devices().at(d).id())).as(what).isEqualTo(
                    oneByOne(audiences, units, 0, devices).stream().map(unit -> unit.split(" ")[0]).distinct().toList());
            assertThat(audiences.everyDevice().without(of).or(of)).as(what).isEqualTo(audiences.everyDevice());
            assertThat(audiences.everyDevice().without(of).and(of)).as(what).isEqualTo(DeviceSet.NONE);
        });
    }

    @Test
    void unitsAreCountedOnAnyRunOfDevices() {
        forTitlesOfRandomEstates((audiences, units, what) -> {
            int devices = audiences.estate().devices().size();
            for (int from = 0; from <= devices; from++) {
                int to = Math.min(devices, from + 3);
                assertThat(audiences.countOn(units, from, to)).as(what).isEqualTo(oneByOne(audiences, units, from, to).size());
                int people = audiences.estate().devices().all().stream().skip(from).limit(to - from).mapToInt(d -> d.people().size()).sum();
                assertThat(audiences.unitsOn(units.scope(), from, to)).as(what).isEqualTo(units.scope() == Scope.DEVICE ? to - from : people);
            }
        });
    }

    @Test
    void unitsOfOneScopeAreNeverThoseOfTheOther() {
        UnitSet devices = new UnitSet(Scope.DEVICE, Positions.range(0, 3));
        UnitSet people = new UnitSet(Scope.USER, Positions.range(0, 3));
        assertThat(devices).isNotEqualTo(people);
        assertThatThrownBy(() -> devices.or(people)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> people.and(devices)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> UnitSet.union(Scope.DEVICE, List.of(devices, people))).isInstanceOf(IllegalArgumentException.class);
        assertThat(UnitSet.union(Scope.USER, List.of())).isEqualTo(UnitSet.none(Scope.USER));
    }
}
