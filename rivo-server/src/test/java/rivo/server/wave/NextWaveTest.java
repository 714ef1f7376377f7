package rivo.server.wave;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.Rollout;
import rivo.server.assignment.Rollout.Opens;
import rivo.server.assignment.Rollout.Stops;
import rivo.server.assignment.WaveDocument;

/** When a wave opens by itself, and when they stop, for every figure at and beside its bound. */
class NextWaveTest {

    private static final Instant OPENED = Instant.parse("2026-11-20T08:00:00Z");
    private static final Instant NOW = Instant.parse("2026-11-21T08:00:00Z");

    private static AssignmentDocument waves(@Nullable Rollout rollout, boolean... open) {
        List<WaveDocument> waves = new java.util.ArrayList<>();
        for (boolean one : open) {
            waves.add(new WaveDocument(null, BigDecimal.TEN, one));
        }
        return new AssignmentDocument("a1", 1, null, "title:siltscope", "required", "device", List.of("all-devices"), List.of(), null, null, false, null,
                null, null, null, waves, new Delivery(null, null, null, Map.of(), null, false, rollout));
    }

    private static Lane lane(boolean open, int inPlace, int failed, int calledIn, int inPlaceSince) {
        return new Lane(open, 100, 100, inPlace, failed, inPlace + failed, calledIn, inPlaceSince);
    }

    private static final List<Lane> LANES = List.of(lane(true, 40, 2, 40, 38), lane(false, 0, 0, 0, 0));

    private static NextWave next(@Nullable Rollout rollout) {
        return NextWave.of(waves(rollout, true, false), LANES, NOW);
    }

    private static Rollout opens(@Nullable String notBefore, @Nullable String after, @Nullable Integer inPlace, @Nullable Integer atLeast) {
        return new Rollout(false, new Opens(notBefore == null ? null : Instant.parse(notBefore), after, inPlace, atLeast), null, OPENED);
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", value = {
        "-, -, 95, -, opens, Wave 2 opened: 38 of the 40 of wave 1 that have called in since are in place.",
        "-, -, 96, -, waits, Wave 2 opens when 96 in 100 are in place: 38 of the 40 of wave 1 that have called in since are in place.",
        "-, -, 95, 38, opens, Wave 2 opened: 38 of the 40 of wave 1 that have called in since are in place.",
        "-, -, 95, 39, waits, 'Wave 2 opens when 95 in 100 are in place, and at least 39: 38 of the 40 of wave 1 that have called in since are in place.'",
        "-, P1D, -, -, opens, 'Wave 2 opened: it is past 21 Nov 2026, 08:00 UTC.'",
        "-, PT24H1S, -, -, waits, 'Wave 2 opens on 21 Nov 2026, 08:00 UTC.'",
        "2026-11-21T08:00:00Z, -, -, -, opens, 'Wave 2 opened: it is past 21 Nov 2026, 08:00 UTC.'",
        "2026-11-21T08:01:00Z, -, -, -, waits, 'Wave 2 opens on 21 Nov 2026, 08:01 UTC.'",
        "2026-11-20T08:00:00Z, P2D, -, -, waits, 'Wave 2 opens on 22 Nov 2026, 08:00 UTC.'",
        "2026-11-23T08:00:00Z, P2D, -, -, waits, 'Wave 2 opens on 23 Nov 2026, 08:00 UTC.'",
        "-, P2D, 95, -, waits, 'Wave 2 opens on 22 Nov 2026, 08:00 UTC: 38 of the 40 of wave 1 that have called in since are in place.'"})
    void theNextOpensWhenAllOfItsRuleHolds(@Nullable String notBefore, @Nullable String after, @Nullable Integer inPlace, @Nullable Integer atLeast,
            String kind, String sentence) {
        NextWave next = next(opens(notBefore, after, inPlace, atLeast));
        assertThat(next.kind().word()).isEqualTo(kind);
        assertThat(next.sentence()).isEqualTo(sentence);
        assertThat(next.wave()).isEqualTo(2);
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", value = {"4, -, stops", "5, -, by-hand", "4, 2, stops", "4, 3, by-hand", "0, -, stops"})
    void theyStopWhenMoreThanSoManyOfThoseThatTriedFailed(int failed, @Nullable Integer atLeast, String kind) {
        NextWave next = next(new Rollout(false, null, new Stops(failed, atLeast), OPENED));
        assertThat(next.kind().word()).as("2 of 42").isEqualTo(kind);
    }

    @Test
    void stoppingComesBeforeOpening() {
        NextWave next = next(new Rollout(false, new Opens(null, null, 95, null), new Stops(4, null), OPENED));
        assertThat(next.kind()).isEqualTo(NextWave.Kind.STOPS);
        assertThat(next.sentence()).isEqualTo("2 of the 42 that tried have failed: more than 4 in 100.");
    }

    @Test
    void whatFailedInEveryOpenWaveCounts() {
        AssignmentDocument all = waves(new Rollout(false, null, new Stops(9, null), OPENED), true, true);
        assertThat(NextWave.of(all, List.of(lane(true, 10, 0, 0, 0), lane(true, 0, 1, 0, 0)), NOW).kind()).as("1 of 11").isEqualTo(NextWave.Kind.STOPS);
    }

    @Test
    void nothingHappensByItselfOnceTheyAreStoppedOrOpenOrWithoutARule() {
        Rollout rule = new Rollout(true, new Opens(null, null, 1, null), new Stops(0, null), OPENED);
        assertThat(next(rule).kind()).isEqualTo(NextWave.Kind.STOPPED);
        assertThat(next(null).kind()).isEqualTo(NextWave.Kind.BY_HAND);
        assertThat(next(null).sentence()).isEqualTo("Wave 2 opens by hand.");
        assertThat(NextWave.of(waves(rule.withStopped(false), true, true), List.of(lane(true, 1, 0, 1, 1), lane(true, 1, 0, 1, 1)), NOW).kind())
                .isEqualTo(NextWave.Kind.ALL_OPEN);
        assertThat(NextWave.of(waves(null), List.of(), NOW).kind()).isEqualTo(NextWave.Kind.ALL_OPEN);
        assertThat(NextWave.of(waves(rule.withStopped(false), true, false), List.of(), NOW).kind()).as("its title has gone").isEqualTo(NextWave.Kind.WAITS);
    }

    @Test
    void aWaveThatHoldsNobodyOpensNothing() {
        List<Lane> empty = List.of(new Lane(true, 0, 0, 0, 0, 0, 0, 0), lane(false, 0, 0, 0, 0));
        NextWave next = NextWave.of(waves(opens(null, null, 50, null), true, false), empty, NOW);
        assertThat(next.kind()).isEqualTo(NextWave.Kind.WAITS);
        assertThat(next.sentence()).isEqualTo("Wave 1 holds nobody to wait for; open wave 2 by hand.");
    }

    @Test
    void aWaveWithFewerDevicesThanHaveToBeInPlaceSaysSo() {
        List<Lane> few = List.of(new Lane(true, 15, 15, 15, 0, 15, 15, 15), lane(false, 0, 0, 0, 0));
        NextWave next = NextWave.of(waves(opens(null, null, 50, 16), true, false), few, NOW);
        assertThat(next.kind()).isEqualTo(NextWave.Kind.WAITS);
        assertThat(next.sentence()).startsWith("Wave 1 has 15 devices, fewer than the 16 that have to be in place;");
        assertThat(NextWave.of(waves(opens(null, null, 50, 15), true, false), few, NOW).kind()).isEqualTo(NextWave.Kind.OPENS);
    }

    @Test
    void fromWhenWavesWereOpenIsKeptAndCountedFromNowWhereNobodyKnows() {
        AssignmentDocument known = waves(new Rollout(false, null, null, OPENED), true, false);
        AssignmentDocument early = waves(null, true, false);
        Rollout sent = new Rollout(false, new Opens(null, "P1D", null, null), null, Instant.EPOCH);
        assertThat(lastOpened(waves(sent, true, false).inPlaceOf(known, NOW))).as("whatever is sent").isEqualTo(OPENED);
        assertThat(lastOpened(waves(sent, true, true).inPlaceOf(known, NOW))).isEqualTo(NOW);
        assertThat(lastOpened(waves(sent, true, false).inPlaceOf(early, NOW))).as("a day is waited from now on").isEqualTo(NOW);
        assertThat(lastOpened(waves(sent, true, false).inPlaceOf(null, NOW))).isEqualTo(NOW);
        assertThat(lastOpened(waves(sent, false, false).inPlaceOf(known, NOW))).as("all are closed").isNull();
    }

    private static @Nullable Instant lastOpened(AssignmentDocument document) {
        Rollout rollout = document.delivery().rollout();
        return rollout == null ? null : rollout.lastOpened();
    }

    @Test
    void theFirstOpensByItsTimeAlone() {
        List<Lane> closed = List.of(lane(false, 0, 0, 0, 0), lane(false, 0, 0, 0, 0));
        Rollout rule = new Rollout(false, new Opens(Instant.parse("2026-11-21T08:00:01Z"), "P1D", 95, 20), null, null);
        assertThat(NextWave.of(waves(rule, false, false), closed, NOW).kind()).isEqualTo(NextWave.Kind.WAITS);
        NextWave next = NextWave.of(waves(rule, false, false), closed, NOW.plusSeconds(1));
        assertThat(next.kind()).isEqualTo(NextWave.Kind.OPENS);
        assertThat(next.wave()).isEqualTo(1);
    }
}
