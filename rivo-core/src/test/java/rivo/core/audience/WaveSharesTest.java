package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.RandomEstates;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Target;

class WaveSharesTest {

    private static Estate many(Assignment assignment) {
        Estates estates = Estates.usual();
        for (int i = 0; i < 400; i++) {
            estates.device("d" + i, i % 3 == 0 ? "labs" : "works");
        }
        return estates.assignment(assignment).estate();
    }

    private static Assignment waved() {
        return new Estates().next("siltscope", Intent.REQUIRED, Target.ou("root"));
    }

    private static Positions naive(String assignment, int limit, Positions asked, Devices devices) {
        Predicate<String> takes = WaveShares.taking(assignment, limit);
        return asked.filter(p -> takes.test(devices.at(p).id()));
    }

    @Test
    void whatIsKnownGoesAlongWithWhoeverMoves() {
        Random random = new Random(5);
        Assignment assignment = waved();
        Estate estate = many(assignment);
        WaveShares shares = new WaveShares();
        for (int round = 0; round < 60; round++) {
            Devices devices = estate.devices();
            int limit = 2500 * (1 + random.nextInt(3));
            Positions asked = Positions.range(0, devices.size()).filter(p -> random.nextInt(3) > 0);
            assertThat(shares.taken(assignment.id(), List.of(limit), limit, asked, devices).toArray()).isEqualTo(naive(assignment.id(), limit, asked, devices).toArray());
            Device device = devices.at(random.nextInt(devices.size()));
            Estate next = random.nextInt(4) == 0 ? estate.with(DirectoryChange.none(estate.asOf()).withDevices(List.of(),
                    Set.of(device.id()))) : estate.withDevice(device.withOu(random.nextBoolean() ? "labs" : "stores"));
            shares = shares.in(next, Moves.between(devices, next.devices()));
            estate = next;
        }
    }

    @Test
    void aShareTakesAboutAsManyAsItSaysAndEachAssignmentOthers() {
        Devices devices = many(waved()).devices();
        Positions all = Positions.range(0, devices.size());
        WaveShares shares = new WaveShares();
        Positions quarter = shares.taken("one", List.of(2500), 2500, all, devices);
        assertThat(quarter.size()).isBetween(60, 140);
        assertThat(shares.taken("one", List.of(5000), 5000, all, devices).and(quarter).toArray()).as("a larger one takes those of a smaller").isEqualTo(quarter.toArray());
        assertThat(shares.taken("one", List.of(2500, 5000), 2500, all, devices).toArray()).as("found together").isEqualTo(quarter.toArray());
        assertThat(shares.taken("one", List.of(2500, 5000), 5000, all, devices).toArray()).isEqualTo(naive("one", 5000, all, devices).toArray());
        assertThat(shares.taken("other", List.of(2500), 2500, all, devices).toArray()).isNotEqualTo(quarter.toArray());
    }

    @Test
    void manyAtOnceAreTakenAsOneByOneHoweverLongTheirIdsAre() {
        Random random = new Random(6);
        Estates estates = Estates.usual();
        for (int i = 0; i < 10_000; i++) {
            estates.device(i + (i % 5 == 0 ? "\u00e4\ud83d\ude00".repeat(random.nextInt(12)) : "d".repeat(random.nextInt(40))), i % 3 == 0 ? "labs" : "works");
        }
        Estate estate = estates.assignment(waved()).estate();
        Devices devices = estate.devices();
        Positions all = Positions.range(0, devices.size());
        WaveShares shares = new WaveShares();
        assertThat(shares.taken("one", List.of(3000), 3000, all, devices).toArray()).isEqualTo(naive("one", 3000, all, devices).toArray());
        Device moved = devices.at(4321);
        Estate next = estate.withDevice(moved.withOu("labs".equals(moved.ou()) ? "works" : "labs"));
        shares = shares.in(next, Moves.between(devices, next.devices()));
        assertThat(shares.taken("two", List.of(3000), 3000, all, next.devices()).toArray()).as("where they stand elsewhere").isEqualTo(naive("two", 3000, all, next.devices()).toArray());
    }

    @Test
    void nothingIsKeptOfWhatHasEnded() {
        Assignment assignment = waved();
        Estate estate = many(assignment);
        WaveShares shares = new WaveShares();
        shares.taken(assignment.id(), List.of(2500), 2500, Positions.range(0, 9), estate.devices());
        Moves none = Moves.none(estate.devices().size());
        assertThat(shares.in(estate, none)).isSameAs(shares);
        Estate ended = estate.withAssignments(List.of(assignment.withState(AssignmentState.RETIRED)));
        assertThat(shares.in(ended, none)).isNotSameAs(shares);
        assertThat(shares.in(Estate.of(RandomEstates.parts(1)), none)).as("or has never been there").isNotSameAs(shares);
    }
}
