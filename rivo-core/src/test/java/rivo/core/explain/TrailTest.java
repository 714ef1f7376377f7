package rivo.core.explain;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.core.Estates.SILTSCOPE;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;

class TrailTest {

    private static Trail trail(Estates estates, String device) {
        Estate estate = estates.build();
        return Trail.of(estate, Objects.requireNonNull(estate.devices().find(device)), SILTSCOPE);
    }

    private static List<String> said(Trail trail) {
        return trail.rungs().stream().map(r -> r.candidate().assignment().id() + ": " + r.sentence()).toList();
    }

    @Test
    void itSaysWhatDecidesAndWhereTheOthersLost() {
        Trail trail = trail(Estates.usual().assign("siltscope", UNINSTALL, "root").assign("siltscope", REQUIRED, "labs")
                .assign("siltscope", REQUIRED, "works").retired("siltscope", UNINSTALL, "bench"), "d-bench");
        assertThat(said(trail)).containsExactly("a2: nearest OU that speaks for this title, 1 level up",
                "a3: does not reach here", "a1: weaker: 2 levels up, the deciding one is nearer", "a4: ended");
        assertThat(trail.sentence()).isEqualTo(
                "Required, because the nearest assignment that reaches here, at labs, says so.");
    }

    @Test
    void itNamesTheOutermostFenceThatStops() {
        Trail trail = trail(Estates.usual().fence("labs").fence("bench").assign("siltscope", REQUIRED, "root"),
                "d-bench");
        assertThat(said(trail)).containsExactly("a1: stopped by the fence at labs; it is not binding");
        assertThat(trail.sentence()).isEqualTo("Nothing: root requires it, but the fence at labs stops that.");
    }

    @Test
    void itSaysThatABindingOneDecides() {
        Trail trail = trail(Estates.usual().bind("siltscope", REQUIRED, "root").bind("siltscope", REQUIRED, "labs")
                .assign("siltscope", UNINSTALL, "bench"), "d-bench");
        assertThat(said(trail)).containsExactly("a1: binding from 2 levels up",
                "a2: weaker: 1 level up, the deciding one binds from farther up",
                "a3: weaker: it is not binding, the deciding one is");
    }

    @Test
    void itSaysWhichPriorityLost() {
        Trail trail = trail(Estates.usual().assign("siltscope", REQUIRED, "labs").withPriority(600, "siltscope",
                UNINSTALL, "labs"), "d-labs");
        assertThat(said(trail)).containsExactly("a2: nearest OU that speaks for this title, right here",
                "a1: weaker: its priority is 500, the deciding one's is 600");
        assertThat(trail.sentence()).startsWith("Removed, because the nearest");
    }

    @Test
    void contestedOnesAllSaySo() {
        Trail trail = trail(Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", UNINSTALL,
                "labs"), "d-labs");
        assertThat(trail.rungs()).allMatch(rung -> rung.verdict() instanceof Verdict.Disagrees);
        assertThat(trail.sentence()).startsWith("Contested: 2 level assignments disagree.");
    }

    @Test
    void aNewerOneOfTheSameMindSaysSo() {
        Trail trail = trail(Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", REQUIRED,
                "labs"), "d-labs");
        assertThat(said(trail).get(1)).isEqualTo("a2: level with the deciding one and of the same mind, but newer");
    }

    @Test
    void whereNothingReachesItSaysThat() {
        assertThat(trail(Estates.usual(), "d-labs").sentence())
                .isEqualTo("Nothing: no assignment of Siltscope Lab reaches here.");
    }

    @Test
    void theTrailNeverDisagreesWithTheOutcome() {
        for (long seed = 0; seed < 1000; seed++) {
            Estate estate = Estates.random(seed).build();
            for (Device device : estate.devices().all()) {
                for (Title title : estate.titles()) {
                    Decision decision = new Resolver(estate).device(device).get(title.id());
                    Trail trail = Trail.of(estate, device, title);
                    assertThat(trail.decision().orElse(null)).as("seed %d", seed).isEqualTo(decision);
                    assertThat(deciding(trail)).as("seed %d", seed).isEqualTo(decision == null ? List.of()
                            : decision.deciding().stream().map(a -> a.id()).toList());
                }
            }
        }
    }

    /** The assignments whose rungs say that they decide, or are at odds. */
    private static List<String> deciding(Trail trail) {
        boolean contested = trail.decision().map(d -> d.outcome() == Outcome.CONTESTED).orElse(false);
        return trail.rungs().stream()
                .filter(r -> contested ? r.verdict() instanceof Verdict.Disagrees
                        : r.verdict() instanceof Verdict.Decides)
                .map(r -> r.candidate().assignment().id()).distinct().sorted().toList();
    }
}
