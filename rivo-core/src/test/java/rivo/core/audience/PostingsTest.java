package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Facts;

class PostingsTest {

    /** Enough for several parts, each of many blocks. */
    private static final int MANY = 130_007;

    private static int[] naive(List<List<String>> values, Predicate<String> test) {
        return IntStream.range(0, values.size()).filter(p -> values.get(p).stream().anyMatch(test)).toArray();
    }

    private static List<List<String>> random(long seed, int size, int most) {
        Random random = new Random(seed);
        List<List<String>> values = new ArrayList<>();
        for (int p = 0; p < size; p++) {
            List<String> here = new ArrayList<>();
            for (int i = random.nextInt(most + 1); i > 0; i--) {
                // Not the same objects: equal texts are one value.
                here.add(new String("v" + random.nextInt(300)));
            }
            values.add(here);
        }
        return values;
    }

    @Test
    void whatIsLaidOutInPartsIsWhatEachPositionSays() {
        List<List<String>> values = random(1, MANY, 3);
        Postings<String> postings = Postings.of(MANY, values::get);
        assertThat(postings.distinct()).doesNotHaveDuplicates().hasSize(300);
        for (Predicate<String> test : List.<Predicate<String>>of("v7"::equals, v -> v.startsWith("v1"), v -> true, v -> false,
                v -> !v.equals("v7"))) {
            assertThat(postings.where(test).toArray()).isEqualTo(naive(values, test));
        }
    }

    @Test
    void whereEveryPositionHasOneValueTheRareOnesAreTakenAway() {
        List<List<String>> values = random(2, MANY, 3).stream().map(v -> v.isEmpty() ? List.of("none") : v.subList(0, 1))
                .toList();
        Postings<String> postings = Postings.of(MANY, values::get);
        for (Predicate<String> test : List.<Predicate<String>>of("none"::equals, v -> !v.equals("none"), v -> true,
                v -> !v.equals("v9"))) {
            assertThat(postings.where(test).toArray()).isEqualTo(naive(values, test));
        }
    }

    @Test
    void oneMissingValueIsEnoughForNotTakingTheOthersAway() {
        List<List<String>> values = new ArrayList<>(random(3, MANY, 0).stream().map(v -> List.of("here")).toList());
        values.set(MANY - 1, List.of());
        assertThat(Postings.of(MANY, values::get).where("here"::equals).toArray()).hasSize(MANY - 1);
        values.set(MANY - 1, List.of("here", "there"));
        assertThat(Postings.of(MANY, values::get).where(v -> true).size()).isEqualTo(MANY);
        assertThat(Postings.of(MANY, values::get).where("there"::equals).toArray()).containsExactly(MANY - 1);
    }

    @Test
    void aValueThatAPositionHasTwiceCountsOnce() {
        Postings<String> postings = Postings.of(3, p -> p == 1 ? List.of("a", "a", "b") : List.of());
        assertThat(postings.where("a"::equals).toArray()).containsExactly(1);
        assertThat(postings.of(Positions.range(0, 2)).toArray()).containsExactly(1);
    }

    @Test
    void ofNothingNothingIsFound() {
        Postings<String> postings = Postings.of(0, p -> List.of());
        assertThat(postings.where(v -> true).isEmpty()).isTrue();
        assertThat(postings.of(Positions.NONE).isEmpty()).isTrue();
        assertThat(Postings.of(5, p -> List.<String>of()).where(v -> true).isEmpty()).isTrue();
    }

    @Test
    void mappedValuesStayWhereTheyAre() {
        Postings<Integer> lengths = Postings.of(3, p -> List.of("x".repeat(p))).map(String::length);
        assertThat(lengths.where(length -> length > 0).toArray()).containsExactly(1, 2);
    }

    @Test
    void factsOfManyDevicesAreLaidOutAsEachTellsThem() {
        Random random = new Random(4);
        List<Facts> facts = new ArrayList<>();
        for (int p = 0; p < MANY; p++) {
            String site = "Site " + random.nextInt(40);
            facts.add(switch (random.nextInt(5)) {
                case 0 -> Facts.NONE;
                case 1 -> Facts.of(Map.of("Site", site));
                case 2 -> Facts.of(Map.of("arch", "x64", "x.Room", "r" + p % 7));
                default -> Facts.of(Map.of("arch", "arm64", "site", site));
            });
        }
        Map<String, Postings<String>> columns = FactColumns.of(MANY, facts::get);
        assertThat(columns).containsOnlyKeys("arch", "site", "x.room");
        for (String name : columns.keySet()) {
            for (String value : columns.get(name).distinct()) {
                assertThat(columns.get(name).where(value::equals).toArray()).isEqualTo(IntStream.range(0, MANY)
                        .filter(p -> value.equals(facts.get(p).get(name))).toArray());
            }
        }
    }

    @Test
    void everyPositionIsVisitedOnceAndInOrderWhateverTheBlocks() {
        for (int size : List.of(0, 1, 255, 256, 257, 1000)) {
            List<Integer> visited = new ArrayList<>();
            Blocks.forEach(0, size, p -> p, p -> p % 3 == 0, (position, thing) -> {
                assertThat(thing).isEqualTo(position);
                visited.add(position);
            });
            assertThat(visited).containsExactlyElementsOf(IntStream.range(0, size).filter(p -> p % 3 != 0).boxed().toList());
        }
    }

    @Test
    void partsCoverAllPositionsWithoutOverlapping() {
        for (int size : List.of(0, 1, 49_999, 100_000, 1_000_003)) {
            int[] next = {0};
            Blocks.inParts(size, (from, to) -> new int[] {from, to}).forEach(part -> {
                assertThat(part[0]).isEqualTo(next[0]);
                next[0] = part[1];
            });
            assertThat(next[0]).isEqualTo(size);
        }
    }
}
