package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;

class MovesTest {

    private static final List<String> OUS = List.of("labs", "bench", "stores", "works");

    private static Estate estate(int devices) {
        Estates estates = Estates.usual().user("imara", "works");
        for (int i = 0; i < devices; i++) {
            estates.device("d" + i, OUS.get(i % 4));
        }
        return estates.estate();
    }

    /** Says the same as looking every device up. */
    private static void check(Devices old, Devices now, Moves moves, Random random) {
        int[] to = IntStream.range(0, old.size()).map(p -> now.positionOf(old.at(p).id())).toArray();
        assertThat(IntStream.range(0, old.size()).map(moves::to).toArray()).isEqualTo(to);
        assertThat(moves.changed().toArray()).isEqualTo(IntStream.range(0, now.size())
                .filter(p -> old.find(now.at(p).id()) != now.at(p)).toArray());
        assertThat(moves.haveNew()).isEqualTo(now.all().stream().anyMatch(d -> old.find(d.id()) == null));
        assertThat(moves.areNone()).isEqualTo(old.size() == now.size() && IntStream.range(0, to.length).allMatch(p -> to[p] == p));
        int one = random.nextInt(old.size());
        for (Positions set : List.of(Positions.NONE, Positions.range(0, old.size()), Positions.range(one / 2, one),
                Positions.of(one), random(old.size(), 2, random), random(old.size(), 100, random))) {
            assertThat(moves.of(set).toArray()).isEqualTo(set.stream().map(p -> to[p]).filter(p -> p >= 0).sorted().toArray());
        }
    }

    private static Positions random(int size, int oneIn, Random random) {
        return Positions.of(IntStream.range(0, size).filter(p -> random.nextInt(oneIn) == 0).toArray());
    }

    private static Estate changed(Estate estate, Random random) {
        List<Device> all = new ArrayList<>(estate.devices().all());
        Collections.shuffle(all, random);
        int n = random.nextInt(3) == 0 ? all.size() / 2 : 1 + random.nextInt(4);
        List<Device> some = all.subList(0, Math.min(n, all.size()));
        return switch (random.nextInt(4)) {
            case 0 -> estate.withDevices(some.stream().map(d -> d.withOu(OUS.get(random.nextInt(4)))).toList());
            case 1 -> estate.withDevices(some.stream().map(d -> d.withPeople(List.of("imara"))).toList());
            case 2 -> Estate.of(estate.parts().withDevices(all.subList(Math.min(n, all.size() - 1), all.size())));
            default -> {
                for (int i = 0; i < n; i++) {
                    all.add(Device.of("new" + random.nextInt(), "", OUS.get(random.nextInt(4)), List.of()));
                }
                yield Estate.of(estate.parts().withDevices(all));
            }
        };
    }

    @Test
    void everyoneIsWhereLookingThemUpFindsThem() {
        for (int seed = 0; seed < 120; seed++) {
            Random random = new Random(seed);
            Estate first = estate(1 + random.nextInt(2500));
            Moves all = Moves.none(first.devices().size());
            Estate estate = first;
            for (int step = 0; step < 4; step++) {
                Estate next = changed(estate, random);
                Moves moves = Moves.between(estate.devices(), next.devices());
                check(estate.devices(), next.devices(), moves, random);
                all = all.then(moves);
                estate = next;
            }
            for (int p = 0; p < first.devices().size(); p++) {
                int now = all.to(p);
                assertThat(now < 0 ? null : estate.devices().at(now).id()).as("seed %d", seed).isIn(null, first.devices().at(p).id());
            }
            for (int p = 0; p < estate.devices().size(); p++) {
                if (first.devices().find(estate.devices().at(p).id()) != estate.devices().at(p)) {
                    assertThat(all.changed().contains(p)).as("seed %d", seed).isTrue();
                }
            }
        }
    }

    @Test
    void theVerySameDevicesHaveNotMoved() {
        Devices devices = estate(9).devices();
        Moves moves = Moves.between(devices, devices);
        assertThat(moves.areNone()).isTrue();
        assertThat(moves.changed().isEmpty()).isTrue();
        assertThat(moves.of(Positions.of(2, 5))).isEqualTo(Positions.of(2, 5));
    }
}
