package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.RandomPositions;

/** Sets of positions against Java's own, in all three shapes and over each other. */
class PositionsTest {

    private static final int SPAN = 700;

    private static Positions random(Random random, Set<Integer> members) {
        int kind = random.nextInt(4);
        int from = random.nextInt(SPAN);
        int to = from + random.nextInt(SPAN - from + 1);
        for (int p = from; p < to; p++) {
            boolean in = switch (kind) {
                case 0 -> true;
                case 1 -> random.nextInt(80) == 0;
                case 2 -> random.nextInt(3) == 0;
                default -> random.nextInt(20) != 0;
            };
            if (in) {
                members.add(p);
            }
        }
        return Positions.of(members.stream().mapToInt(p -> p).toArray());
    }

    private static void assertSame(Positions positions, Set<Integer> members, String what) {
        int[] expected = members.stream().mapToInt(p -> p).sorted().toArray();
        assertThat(positions.toArray()).as(what).isEqualTo(expected);
        assertThat(positions.size()).as(what).isEqualTo(expected.length);
        assertThat(positions).as(what + ": the shape is that of the members").isEqualTo(Positions.of(expected))
                .hasSameClassAs(Positions.of(expected)).hasSameHashCodeAs(Positions.of(expected));
        if (expected.length > 0) {
            assertThat(positions.first()).as(what).isEqualTo(expected[0]);
            assertThat(positions.end()).as(what).isEqualTo(expected[expected.length - 1] + 1);
        }
    }

    @Test
    void setsBehaveAsJavasOwn() {
        for (int seed = 0; seed < 3000; seed++) {
            Random random = new Random(seed);
            Set<Integer> a = new TreeSet<>();
            Set<Integer> b = new TreeSet<>();
            Positions one = random(random, a);
            Positions other = random(random, b);
            Set<Integer> both = new TreeSet<>(a);
            both.retainAll(b);
            assertSame(one.and(other), both, "seed " + seed + " and");
            assertThat(one.meets(other)).as("seed %d meets", seed).isEqualTo(!both.isEmpty());
            assertThat(one.equals(other)).as("seed %d equals", seed).isEqualTo(a.equals(b));
            Set<Integer> either = new TreeSet<>(a);
            either.addAll(b);
            assertSame(one.or(other), either, "seed " + seed + " or");
            assertSame(Positions.union(List.of(one, Positions.NONE, other)), either, "seed " + seed + " union");
            Set<Integer> only = new TreeSet<>(a);
            only.removeAll(b);
            assertSame(one.without(other), only, "seed " + seed + " without");
            inASpan(random, one, a, "seed " + seed);
            remaining(one, other, a, b, "seed " + seed);
        }
    }

    private static void inASpan(Random random, Positions one, Set<Integer> a, String what) {
        int from = random.nextInt(SPAN);
        int to = random.nextInt(SPAN);
        Set<Integer> within = new TreeSet<>(a);
        within.removeIf(p -> p < from || p >= to);
        assertSame(one.in(from, to), within, what + " in");
        assertThat(one.countIn(from, to)).as(what).isEqualTo(within.size());
        for (int i = 0; i < 20; i++) {
            int p = random.nextInt(SPAN + 100);
            assertThat(one.contains(p)).as(what).isEqualTo(a.contains(p));
        }
    }

    private static void remaining(Positions one, Positions other, Set<Integer> a, Set<Integer> b, String what) {
        Remaining remaining = new Remaining(0, SPAN);
        Positions taken = remaining.and(one);
        assertThat(taken).as(what + ": a set that is wholly there is handed out itself").isSameAs(one);
        remaining.remove(taken);
        Set<Integer> left = new TreeSet<>(b);
        left.removeAll(a);
        assertSame(remaining.and(other), left, what + " remaining");
        assertThat(remaining.size()).isEqualTo(SPAN - a.size());
    }

    /** As few as one over a span of many words, and as many as all: what remains is what nobody took. */
    @Test
    void ofSomePositionsThereRemainsWhatWasNotTaken() {
        for (int seed = 0; seed < 2000; seed++) {
            Random random = new Random(seed);
            int end = 64 + random.nextInt(20_000);
            Positions some = RandomPositions.below(end, random);
            Remaining remaining = new Remaining(some);
            for (int fill = 0; fill < 2; fill++) {
                Positions left = some;
                for (int i = 0; i < 4; i++) {
                    Positions set = RandomPositions.below(end, random);
                    Positions found = remaining.and(set);
                    assertThat(found).as("seed %d: %s of %s", seed, set, left).isEqualTo(left.filter(set::contains));
                    remaining.remove(found);
                    left = left.filter(p -> !set.contains(p));
                    assertThat(remaining.size()).as("seed %d", seed).isEqualTo(left.size());
                    assertThat(remaining.toPositions()).as("seed %d", seed).isEqualTo(left);
                }
                remaining.fill();
            }
        }
    }

    @Test
    void aWindowOfWhatRemainsSeesItselfOnly() {
        Positions many = Positions.range(0, 640).filter(p -> p % 2 == 0);
        Remaining one = new Remaining(100, 101);
        assertThat(one.and(many).toArray()).containsExactly(100);
        assertThat(one.and(Positions.range(0, 640)).toArray()).containsExactly(100);
        assertThat(one.and(Positions.of(3, 100, 600)).toArray()).containsExactly(100);
        assertThat(one.and(Positions.range(101, 640)).isEmpty()).isTrue();
    }

    /** Some spans are left out, as where others take them. */
    @Test
    void spanBySpanEachMemberIsMarkedInItsOwn() {
        for (int seed = 0; seed < 500; seed++) {
            Random random = new Random(seed);
            Set<Integer> members = new TreeSet<>();
            Positions set = random(random, members);
            int passed = 0;
            for (int from = 0; from < 2048; from += 128 * (1 + random.nextInt(3))) {
                long[] words = new long[2];
                passed = set.addTo(words, from, passed);
                for (int p = from; p < from + 128; p++) {
                    assertThat((words[p - from >> 6] >>> p & 1) != 0).as("seed %d, position %d", seed, p).isEqualTo(members.contains(p));
                }
            }
        }
    }

    @Test
    void theShapeIsTheCheapestThatHolds() {
        assertThat(Positions.range(5, 5_000_000)).isInstanceOf(RunOfPositions.class);
        assertThat(Positions.of(1, 9, 100_000)).isInstanceOf(ListedPositions.class);
        assertThat(Positions.range(0, 1000).filter(p -> p % 3 == 0)).isInstanceOf(PackedPositions.class);
        assertThat(Positions.of(7, 6, 5, 5)).isEqualTo(Positions.range(5, 8));
        assertThat(Positions.of()).isSameAs(Positions.NONE);
    }

    @Test
    void membersComeInOrder() {
        List<Integer> seen = new ArrayList<>();
        Positions.of(300, 2, 77).forEach(seen::add);
        assertThat(seen).containsExactly(2, 77, 300);
    }

    @Test
    void shiftedByAnyDistanceEachStandsSoMuchFurther() {
        Random random = new Random(3);
        for (int oneIn : new int[] {1, 2, 5, 300}) {
            int[] members = IntStream.range(1000, 9000).filter(p -> random.nextInt(oneIn) == 0).toArray();
            Positions set = Positions.of(members);
            for (int by : new int[] {0, 1, -1, 63, 64, 65, -63, -64, -65, 777, -members[0]}) {
                assertThat(set.shifted(by)).isEqualTo(Positions.of(Arrays.stream(members).map(p -> p + by).toArray()))
                        .hasSameClassAs(Positions.of(Arrays.stream(members).map(p -> p + by).toArray()));
            }
        }
        assertThat(Positions.NONE.shifted(5).isEmpty()).isTrue();
    }

    @Test
    void bitsAreAddedWhereTheyStandAndNoneOutsideTheSpan() {
        long[] bits = {1L | 1L << 63, 0, 1L << 5};
        assertThat(new PositionsBuilder(70, 260).add(71).addAll(bits, 64).build().toArray()).containsExactly(71, 127, 197);
        assertThat(new PositionsBuilder(64, 190).addAll(bits, 64).build().toArray()).containsExactly(64, 127);
        assertThat(new PositionsBuilder(0, 128).addAll(bits, 192).build().isEmpty()).isTrue();
    }
}
