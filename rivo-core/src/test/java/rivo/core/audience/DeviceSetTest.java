package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class DeviceSetTest {

    private static final int DEVICES = 3000;

    private static DeviceSet of(BitSet bits) {
        return DeviceSet.of(bits.stream().toArray());
    }

    private static BitSet random(Random random) {
        BitSet bits = new BitSet();
        int runs = random.nextInt(6);
        for (int i = 0; i < runs; i++) {
            int from = random.nextInt(DEVICES);
            bits.set(from, Math.min(DEVICES, from + 1 + random.nextInt(400)));
        }
        return bits;
    }

    @RepeatedTest(50)
    void setsDoAsBitsDo(RepetitionInfo info) {
        Random random = new Random(info.getCurrentRepetition());
        BitSet a = random(random);
        BitSet b = random(random);
        BitSet or = (BitSet) a.clone();
        or.or(b);
        BitSet and = (BitSet) a.clone();
        and.and(b);
        BitSet without = (BitSet) a.clone();
        without.andNot(b);
        assertThat(of(a).or(of(b))).isEqualTo(of(or));
        assertThat(of(a).and(of(b))).isEqualTo(of(and));
        assertThat(of(a).without(of(b))).isEqualTo(of(without));
        assertThat(of(a).size()).isEqualTo(a.cardinality());
        assertThat(of(a).countIn(500, 2000)).isEqualTo(a.get(500, 2000).cardinality());
    }

    @Test
    void aRangeHoldsItsFirstAndNotItsEnd() {
        DeviceSet range = DeviceSet.range(3, 6);
        assertThat(range.contains(2)).isFalse();
        assertThat(range.contains(3)).isTrue();
        assertThat(range.contains(6)).isFalse();
        assertThat(DeviceSet.range(6, 6)).isEqualTo(DeviceSet.NONE);
    }

    @Test
    void operationsLeaveTheirOperandsAlone() {
        DeviceSet one = DeviceSet.range(0, 10);
        one.or(DeviceSet.range(20, 30));
        one.without(DeviceSet.range(0, 5));
        assertThat(one).isEqualTo(DeviceSet.range(0, 10));
    }

    @Test
    void positionsComeInAscendingOrder() {
        List<Integer> seen = new ArrayList<>();
        DeviceSet.of(9, 2, 7).forEach(seen::add);
        assertThat(seen).containsExactly(2, 7, 9);
    }
}
