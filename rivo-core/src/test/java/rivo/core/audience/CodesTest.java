package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Facts;

class CodesTest {

    @Test
    void equalValuesHaveOneCodeWhicheverObjectsTheyAre() {
        Codes<String> codes = new Codes<>();
        assertThat(codes.of("x64")).isZero();
        assertThat(codes.of(new String("x64"))).isZero();
        assertThat(codes.of("arm64")).isEqualTo(1);
        assertThat(codes.distinct()).containsExactly("x64", "arm64");
    }

    @Test
    void codesStayWhatTheyAreWhileTheTableGrows() {
        Codes<Integer> codes = new Codes<>();
        Set<Integer> seen = new LinkedHashSet<>();
        Random random = new Random(5);
        for (int i = 0; i < 20_000; i++) {
            int value = random.nextInt(4000) * 64;
            seen.add(value);
            codes.of(value);
        }
        assertThat(codes.distinct()).containsExactlyElementsOf(seen);
        List<Integer> order = new ArrayList<>(seen);
        assertThat(IntStream.range(0, order.size())).allMatch(code -> codes.of(order.get(code)) == code);
    }

    @Test
    void aBlockIsCodedAsItsValuesAreOneByOne() {
        Codes<Integer> blocks = new Codes<>();
        Codes<Integer> single = new Codes<>();
        Random random = new Random(6);
        for (int round = 0; round < 200; round++) {
            // Small and equal hashes among them, and more values than the block is said to have.
            Integer[] block = random.ints(100, 0, 5_000).map(i -> i % 3 == 0 ? i : i << 16).boxed().toArray(Integer[]::new);
            int n = random.nextInt(block.length + 1);
            int[] codes = blocks.of(block, n);
            assertThat(codes).isEqualTo(IntStream.range(0, n).map(i -> single.of(block[i])).toArray());
        }
        assertThat(blocks.distinct()).isEqualTo(single.distinct());
    }

    @Test
    void columnsOfOneNameAreOneHoweverItIsCapitalisedAndWhereverItStands() {
        List<Facts> facts = List.of(Facts.of(Map.of("arch", "x64", "site", "Weir")), Facts.of(Map.of("Arch", "x64")),
                Facts.of(Map.of("site", "Weir")));
        Map<String, Postings<String>> built = FactColumns.of(3, facts::get);
        assertThat(built).containsOnlyKeys("arch", "site");
        assertThat(built.get("arch").where("x64"::equals).toArray()).containsExactly(0, 1);
        assertThat(built.get("site").where("Weir"::equals).toArray()).containsExactly(0, 2);
    }
}
