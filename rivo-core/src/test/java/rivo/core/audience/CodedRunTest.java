package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class CodedRunTest {

    private static CodedRun<String> run(int from, int to, int... positions) {
        CodedRun<String> run = new CodedRun<>(from, to);
        for (int position : positions) {
            run.add(position, "v" + position % 3);
        }
        return run.done();
    }

    private static int[] all(int from, int to) {
        return IntStream.range(from, to).toArray();
    }

    @Test
    void everyPositionHasExactlyOneWhereNoneIsLeftOutAndNoneComesTwice() {
        for (int length : List.of(1, 511, 512, 513, 1024, 1500)) {
            assertThat(run(7, 7 + length, all(7, 7 + length)).hasExactlyOneEach()).as("%d", length).isTrue();
            assertThat(run(7, 8 + length, all(7, 7 + length)).hasExactlyOneEach()).as("last of %d missing", length).isFalse();
            assertThat(run(6, 7 + length, all(7, 7 + length)).hasExactlyOneEach()).as("first of %d missing", length).isFalse();
        }
    }

    @Test
    void oneTwiceDoesNotMakeUpForTheNextThatIsMissing() {
        assertThat(run(0, 3, 0, 0, 2).hasExactlyOneEach()).isFalse();
        int[] acrossBlocks = all(0, 600);
        acrossBlocks[512] = 511;
        assertThat(run(0, 600, acrossBlocks).hasExactlyOneEach()).isFalse();
    }

    @Test
    void nothingOfNothingIsOneEach() {
        assertThat(run(4, 4).hasExactlyOneEach()).isTrue();
        assertThat(run(4, 5).hasExactlyOneEach()).isFalse();
        assertThat(run(4, 5).counts()).isEmpty();
    }

    @Test
    void positionsAreLaidOutByCodeInAscendingOrder() {
        CodedRun<String> run = run(0, 2000, IntStream.range(0, 2000).filter(p -> p % 5 != 0).toArray());
        int[] counts = run.counts();
        int[] begins = {0, counts[0], counts[0] + counts[1]};
        int[] members = new int[1600];
        run.layOut(begins.clone(), members);
        for (int code = 0; code < 3; code++) {
            int value = Integer.parseInt(run.distinct().get(code).substring(1));
            assertThat(IntStream.range(begins[code], begins[code] + counts[code]).map(i -> members[i]).toArray())
                    .isEqualTo(IntStream.range(0, 2000).filter(p -> p % 5 != 0 && p % 3 == value).toArray());
        }
    }
}
