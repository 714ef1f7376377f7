package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Scope;

/** Seats are given out, and rows written, by device and then by person. */
class UnitRanksTest {

    private static final List<String> OUS = List.of("labs", "bench", "stores", "works");

    private static Estate estate(Random random, int devices) {
        Estates estates = Estates.usual();
        for (int u = 0; u < 9; u++) {
            estates.user("u" + u, OUS.get(u % 4));
        }
        for (int i = 0; i < devices; i++) {
            List<String> people = new ArrayList<>();
            for (int u = 0; u < 9; u++) {
                if (random.nextInt(6) == 0) {
                    people.add("u" + u);
                }
            }
            estates.device(new Device("e" + random.nextInt(9999), "", OUS.get(random.nextInt(4)), people, Facts.NONE, List.of(),
                    List.of()));
        }
        return estates.estate();
    }

    private static List<String> byRank(Audiences audiences, Scope scope) {
        UnitRanks ranks = audiences.ranks(scope);
        return IntStream.range(0, audiences.size(scope)).mapToObj(ranks::unitAt)
                .map(unit -> audiences.device(unit, scope).id() + " " + audiences.user(unit, scope)).toList();
    }

    private static void check(Audiences audiences, String what) {
        for (Scope scope : Scope.values()) {
            List<String> said = byRank(audiences, scope);
            assertThat(said).as(what).isSortedAccordingTo(Comparator.comparing((String text) -> text.split(" ", 2)[0],
                    CodePointOrder.INSTANCE).thenComparing(Comparator.naturalOrder())).doesNotHaveDuplicates();
            UnitRanks ranks = audiences.ranks(scope);
            assertThat(IntStream.range(0, said.size()).map(unit -> ranks.unitAt(ranks.rankOf(unit))).toArray()).as(what)
                    .isEqualTo(IntStream.range(0, said.size()).toArray());
        }
    }

    @Test
    void unitsAreRankedByDeviceAndPersonWhereverTheyMove() {
        for (int seed = 0; seed < 40; seed++) {
            Random random = new Random(seed);
            Audiences audiences = Audiences.of(estate(random, 60));
            check(audiences, "seed " + seed);
            for (int step = 0; step < 5; step++) {
                Estate now = audiences.estate();
                Device device = now.devices().at(random.nextInt(now.devices().size()));
                audiences = audiences.follow(switch (step) {
                    case 0, 3 -> now.withDevice(device.withOu(OUS.get(random.nextInt(4))));
                    case 1 -> now.withDevice(device.withPeople(List.of("u3", "u1")));
                    case 2 -> Estate.of(now.parts().withDevices(now.devices().all().stream().filter(d -> d != device).toList()));
                    default -> Estate.of(now.parts().withDevices(java.util.stream.Stream.concat(now.devices().all().stream(),
                            java.util.stream.Stream.of(Device.of("a-new-one", "", "works", List.of()))).toList()));
                });
                check(audiences, "seed " + seed + ", step " + step);
            }
        }
    }

    @Test
    void theFirstSoManyAreThoseOfTheLowestRank() {
        Random random = new Random(5);
        Audiences audiences = Audiences.of(estate(random, 500));
        UnitRanks ranks = audiences.ranks(Scope.DEVICE);
        int all = audiences.size(Scope.DEVICE);
        for (int oneIn : new int[] {1, 2, 40}) {
            Positions units = Positions.of(IntStream.range(0, all).filter(p -> random.nextInt(oneIn) == 0).toArray());
            for (int count : new int[] {0, 1, 2, 63, 64, 65, units.size() - 1, units.size(), units.size() + 5}) {
                int[] expected = units.stream().boxed().sorted(Comparator.comparingInt(ranks::rankOf)).limit(Math.max(0, count))
                        .mapToInt(p -> p).sorted().toArray();
                assertThat(ranks.first(units, count).toArray()).as("%d of %d", count, units.size()).isEqualTo(expected);
            }
        }
        assertThat(Objects.requireNonNull(audiences.ranks(Scope.DEVICE)).first(Positions.NONE, 3)).isSameAs(Positions.NONE);
    }
}
