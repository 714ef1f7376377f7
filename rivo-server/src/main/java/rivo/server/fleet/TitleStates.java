package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.Audiences;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.DecidedUnits;
import rivo.core.state.UnitState;
import rivo.server.estate.Snapshot;

/**
 * In which state each unit of a title is, in part of the organisation. Costs a look at each of them that somebody has decided of, and nothing
 * for the others. Safe for any number of threads.
 */
@Component
class TitleStates {

    /**
     * How the units of a title stand; the counts add up to {@code units}.
     *
     * @param units how many there are: devices, or people on devices for a title that is installed for each person
     * @param states those in which some are, as the states are ordered
     * @param expected when those that wait or are under way are expected to be as they shall; absent where nobody can say of any
     */
    record StateCounts(int units, List<StateCount> states, @Nullable Expectation expected) {
    }

    /**
     * @param units of how many a time can be said
     * @param half by when half of them are as they shall; absent where that takes longer than two weeks
     * @param nineInTen by when nine in ten are; likewise
     * @param away on how many more the device has not called in for two weeks, or never
     */
    record Expectation(int units, @Nullable Instant half, @Nullable Instant nineInTen, int away) {
    }

    /**
     * @param state as {@link UnitState#word} has it
     * @param words the same as people read it
     * @param group what it is counted under, as {@link rivo.core.state.StateGroup#word} has it
     */
    record StateCount(String state, String words, @Schema(allowableValues = {"in-place", "gone", "under-way", "waiting", "failed", "held", "offered",
        "nothing"}) String group, int count) {
    }

    /** Is told the position of a device, and how one of its units stands. */
    private interface Taker {
        void take(int position, UnitLook look);
    }

    /** Likelihoods that stand for all: so many units, each at each of them, are spread as all of them are. */
    private static final double[] SAMPLES = {1 / 6.0, 1 / 2.0, 5 / 6.0};
    private static final double HALF = 0.5;
    private static final double NINE_IN_TEN = 0.9;

    /** Gathers when units are expected. */
    private static final class Expected {
        private final LongStream.Builder times = LongStream.builder();
        private int units;
        private int away;

        void take(UnitLook look) {
            if (look.isAway()) {
                away++;
            } else if (ExpectedTimes.isExpected(look.state())) {
                units++;
                for (double sample : SAMPLES) {
                    Instant by = look.by(sample);
                    times.add(by == null ? Long.MAX_VALUE : by.getEpochSecond());
                }
            }
        }

        @Nullable Expectation expectation() {
            long[] sorted = times.build().sorted().toArray();
            return units + away == 0 ? null : new Expectation(units, at(sorted, HALF), at(sorted, NINE_IN_TEN), away);
        }

        private static @Nullable Instant at(long[] sorted, double share) {
            long at = sorted.length == 0 ? Long.MAX_VALUE : sorted[Math.min(sorted.length - 1, (int) (share * sorted.length))];
            return at == Long.MAX_VALUE ? null : Instant.ofEpochSecond(at);
        }
    }

    private final Fleet fleet;

    TitleStates(Fleet fleet) {
        this.fleet = fleet;
    }

    /**
     * @param from the position of the first device
     * @param to that of the first one behind the last
     */
    StateCounts count(Snapshot snapshot, Title title, int from, int to) {
        Map<UnitState, Integer> counts = new EnumMap<>(UnitState.class);
        Expected expected = new Expected();
        each(snapshot, title, from, to, (position, look) -> {
            counts.merge(look.state(), 1, Integer::sum);
            expected.take(look);
        });
        int units = snapshot.resolver().audiences().unitsOn(title.scope(), from, to);
        int told = counts.values().stream().mapToInt(Integer::intValue).sum();
        counts.merge(UnitState.NOTHING, units - told, Integer::sum);
        return new StateCounts(units, Arrays.stream(UnitState.values()).filter(state -> counts.getOrDefault(state, 0) > 0)
                .map(state -> new StateCount(state.word(), state.words(), state.group().word(), counts.get(state)))
                .sorted(Comparator.comparing(one -> UnitState.NOTHING.word().equals(one.state()))).toList(), expected.expectation());
    }

    /** The positions of the devices that have a unit in this state. */
    IntPredicate devices(Snapshot snapshot, Title title, UnitState wanted) {
        Audiences audiences = snapshot.resolver().audiences();
        int all = snapshot.estate().devices().size();
        int[] told = new int[all];
        boolean[] has = new boolean[all];
        each(snapshot, title, 0, all, (position, look) -> {
            told[position]++;
            has[position] |= look.state() == wanted;
        });
        if (wanted == UnitState.NOTHING) {
            IntStream.range(0, all).forEach(p -> has[p] |= told[p] < audiences.unitsOn(title.scope(), p, p + 1));
        }
        return p -> has[p];
    }

    /** All units of which somebody has decided; each once. */
    private void each(Snapshot snapshot, Title title, int from, int to, Taker taker) {
        Audiences audiences = snapshot.resolver().audiences();
        for (DecidedUnits part : snapshot.resolver().title(title).parts()) {
            part.units().forEach(unit -> {
                int position = audiences.devicePosition(unit, title.scope());
                if (position >= from && position < to) {
                    String person = title.scope() == Scope.USER ? audiences.user(unit, title.scope()) : null;
                    taker.take(position, fleet.look(snapshot, snapshot.estate().devices().at(position), title, person, part.decision()));
                }
            });
        }
    }
}
