package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.core.estate.Intent.AVAILABLE;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;

/** What a title needs first (section 7, rules 2 and 3): met how, or not met why. */
class NeedsTest {

    private static Bench bench(String... titles) {
        return new Bench().titles(titles);
    }

    @Test
    void whatIsNeededComesAlong() {
        Bench bench = bench("scope needs:kit>=2.0", "kit@2.4").far(REQUIRED, "scope");
        assertThat(bench.outcome("scope")).isEqualTo("required assigned");
        assertThat(bench.outcome("kit")).isEqualTo("required implied by scope");
    }

    @Test
    void andWhatThatNeedsComesAlongToo() {
        Bench bench = bench("scope needs:kit", "kit needs:fonts", "fonts").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).containsEntry("kit", "required implied by scope").containsEntry("fonts",
                "required implied by scope");
    }

    @Test
    void whatIsRequiredOnItsOwnAccountIsNotImplied() {
        Bench bench = bench("scope needs:kit", "kit").far(REQUIRED, "kit").far(REQUIRED, "scope");
        assertThat(bench.outcome("kit")).isEqualTo("required assigned");
    }

    @Test
    void whatIsOfferedIsPulledIn() {
        Bench bench = bench("scope needs:kit", "kit").far(AVAILABLE, "kit").far(REQUIRED, "scope");
        assertThat(bench.outcome("kit")).isEqualTo("required implied by scope");
    }

    @Test
    void anOfferAlonePullsNothingIn() {
        Bench bench = bench("scope needs:kit", "kit").far(AVAILABLE, "scope");
        assertThat(bench.outcomes()).containsEntry("scope", "available assigned").doesNotContainKey("kit");
    }

    @Test
    void whatTwoNeedComesOnce() {
        Bench bench = bench("scope needs:kit", "maps needs:kit", "kit").far(REQUIRED, "scope").far(REQUIRED, "maps");
        assertThat(bench.outcome("kit")).as("by the one decided first").isEqualTo("required implied by scope");
        assertThat(bench.outcome("maps")).isEqualTo("required assigned");
    }

    @Test
    void aVersionThatIsTooLowBlocks() {
        assertThat(bench("scope needs:kit>=2.0", "kit@1.9").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-newer by kit");
    }

    @Test
    void whatIsThereInAVersionHighEnoughMeetsTheNeedAsItIs() {
        Bench bench = bench("scope needs:kit>=2.0", "kit@1.9").there("kit@2.1").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).containsEntry("scope", "required assigned").doesNotContainKey("kit");
    }

    @Test
    void anUnknownVersionMeetsNoLowestVersionButMeetsANeedWithoutOne() {
        assertThat(bench("scope needs:kit>=2.0", "kit@1.9 withdrawn").there("kit").far(REQUIRED, "scope").outcome("scope"))
                .startsWith("blocked");
        assertThat(bench("scope needs:kit", "kit@1.9 withdrawn").there("kit").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("required assigned");
    }

    @Test
    void whatShallGoBlocks() {
        Bench bench = bench("scope needs:kit", "kit").far(UNINSTALL, "kit").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).containsEntry("scope", "blocked needs-removed by kit").containsEntry("kit",
                "uninstall assigned");
    }

    @Test
    void whatIsContestedBlocks() {
        assertThat(bench("scope needs:kit", "kit").far(UNINSTALL, "kit").far(REQUIRED, "kit").far(REQUIRED, "scope")
                .outcome("scope")).isEqualTo("blocked needs-contested by kit");
    }

    @Test
    void whatComesLaterBlocks() {
        Bench bench = bench("scope needs:kit", "kit");
        bench.assign(bench.next(REQUIRED, "kit", Target.ou("labs")).withWaves(List.of(Wave.share(100, false))));
        assertThat(bench.far(REQUIRED, "scope").outcome("scope")).isEqualTo("blocked needs-later by kit");
    }

    @Test
    void whatDoesNotFitBlocks() {
        assertThat(bench("scope needs:kit", "kit fits:never").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-unfit by kit");
        assertThat(bench("scope needs:kit", "kit withdrawn").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-unfit by kit");
        assertThat(bench("scope needs:kit", "kit fits:never").far(REQUIRED, "kit").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-unfit by kit");
    }

    @Test
    void whatIsLicensedBySeatIsNeverPulledIn() {
        assertThat(bench("scope needs:kit", "kit seats:9").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-seat by kit");
        assertThat(bench("scope needs:kit", "kit seats:0").far(REQUIRED, "kit").far(REQUIRED, "scope").outcome("scope"))
                .isEqualTo("blocked needs-seat by kit");
        assertThat(bench("scope needs:kit", "kit seats:9").far(REQUIRED, "kit").far(REQUIRED, "scope").outcome("scope"))
                .as("it has a seat of its own").isEqualTo("required assigned");
    }

    @Test
    void whatAStandingTitleReplacesOrConflictsWithBlocks() {
        assertThat(bench("scope needs:kit", "kit", "other replaces:kit").near(REQUIRED, "other").far(REQUIRED, "scope")
                .outcome("scope")).isEqualTo("blocked needs-replaced by kit");
        assertThat(bench("scope needs:kit", "kit", "other conflicts:kit").near(REQUIRED, "other").far(REQUIRED, "scope")
                .outcome("scope")).isEqualTo("blocked needs-displaced by kit");
    }

    @Test
    void aNeedThatIsItselfBlockedBlocks() {
        Bench bench = bench("scope needs:kit", "kit needs:fonts>=2.0", "fonts@1.0").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).as("nothing is pulled in on the way").containsOnlyKeys("scope");
        assertThat(bench.outcome("scope")).isEqualTo("blocked needs-blocked by kit");
    }

    @Test
    void theFirstNeedThatIsNotMetIsNamed() {
        assertThat(bench("scope needs:kit needs:fonts>=9 needs:maps>=9", "kit", "fonts", "maps").far(REQUIRED, "scope")
                .outcomes()).containsEntry("scope", "blocked needs-newer by fonts").doesNotContainKey("kit");
    }

    @Test
    void aBlockedTitleThatIsThereStaysAndKeepsWhatItCannotStandBesideOff() {
        Bench bench = bench("scope needs:kit>=9 conflicts:mud", "kit", "mud").there("scope@1.0").near(REQUIRED, "scope")
                .far(REQUIRED, "mud");
        assertThat(bench.outcomes()).containsEntry("scope", "blocked needs-newer by kit").containsEntry("mud", "displaced by scope");
    }

    @Test
    void whatIsPausedNeedsNothing() {
        Bench bench = bench("scope needs:kit", "kit");
        bench.assign(bench.next(REQUIRED, "scope", Target.ou("labs")).withState(AssignmentState.PAUSED));
        assertThat(bench.outcomes()).isEmpty();
    }

    /** A server's threads have little room for calls. */
    @Test
    void aLongChainOfNeedsIsFollowedToItsEnd() throws InterruptedException {
        int titles = 1500;
        String[] chain = new String[titles];
        for (int t = 0; t < titles; t++) {
            chain[t] = "t" + t + (t + 1 < titles ? " needs:t" + (t + 1) : "");
        }
        Bench bench = bench(chain).far(REQUIRED, "t0");
        Map<String, String> outcomes = new HashMap<>();
        Thread small = new Thread(null, () -> outcomes.putAll(bench.outcomes()), "small", 1 << 18);
        small.start();
        small.join();
        assertThat(outcomes).hasSize(titles).containsEntry("t" + (titles - 1), "required implied by t0");
    }
}
