package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.core.estate.Intent.AVAILABLE;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import org.junit.jupiter.api.Test;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Leaving;
import rivo.core.estate.Target;

/** Titles that cannot stand beside each other (section 7, rule 1), and what stays behind (section 8). */
class StandsAgainstTest {

    private static Bench bench(String... titles) {
        return new Bench().titles(titles);
    }

    @Test
    void theNewTakesThePlaceOfTheOld() {
        Bench bench = bench("scope replaces:classic", "classic").far(REQUIRED, "scope").far(REQUIRED, "classic");
        assertThat(bench.outcomes()).containsEntry("scope", "required assigned").containsEntry("classic", "replaced by scope");
    }

    @Test
    void amongLevelOnesTheReplacingGoesFirstWhateverTheirAge() {
        Bench bench = bench("scope replaces:classic", "classic").far(REQUIRED, "classic").far(REQUIRED, "scope");
        assertThat(bench.outcome("classic")).isEqualTo("replaced by scope");
    }

    @Test
    void aFarOneThatReplacesANearerOneIsKeptOffItself() {
        Bench bench = bench("scope replaces:classic", "classic").near(REQUIRED, "classic").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).containsEntry("classic", "required assigned").containsEntry("scope", "displaced by classic");
    }

    @Test
    void ofTwoThatConflictTheNearerStands() {
        Bench bench = bench("scope conflicts:mud", "mud").far(REQUIRED, "mud").near(REQUIRED, "scope");
        assertThat(bench.outcome("mud")).isEqualTo("displaced by scope");
    }

    @Test
    void ofTwoLevelOnesThatConflictTheOlderStands() {
        Bench bench = bench("scope conflicts:mud", "mud").far(REQUIRED, "mud").far(REQUIRED, "scope");
        assertThat(bench.outcomes()).containsEntry("mud", "required assigned").containsEntry("scope", "displaced by mud");
    }

    @Test
    void aConflictHoldsWhicheverSideStatesIt() {
        assertThat(bench("scope", "mud conflicts:scope").near(REQUIRED, "scope").far(REQUIRED, "mud").outcome("mud"))
                .isEqualTo("displaced by scope");
    }

    @Test
    void anOfferKeepsNothingOffAndIsKeptOffItself() {
        assertThat(bench("scope conflicts:mud", "mud").near(AVAILABLE, "scope").far(REQUIRED, "mud").outcomes())
                .containsEntry("scope", "available assigned").containsEntry("mud", "required assigned");
        assertThat(bench("scope conflicts:mud", "mud").near(REQUIRED, "mud").far(AVAILABLE, "scope").outcome("scope"))
                .isEqualTo("displaced by mud");
    }

    @Test
    void whatComesAlongKeepsOffToo() {
        Bench bench = bench("scope needs:kit", "kit conflicts:mud", "mud").near(REQUIRED, "scope").far(REQUIRED, "mud");
        assertThat(bench.outcome("mud")).isEqualTo("displaced by kit");
    }

    @Test
    void theOldThatIsStillThereIsReplacedThoughNobodyAssignsIt() {
        Bench bench = bench("scope replaces-first:classic", "classic").there("classic@1.0").far(REQUIRED, "scope");
        assertThat(bench.outcome("classic")).isEqualTo("replaced by scope");
    }

    @Test
    void whatIsThereAndConflictsIsKeptOff() {
        assertThat(bench("scope conflicts:mud", "mud").there("mud@1.0").far(REQUIRED, "scope").outcome("mud"))
                .isEqualTo("displaced by scope");
    }

    @Test
    void anOfferLeavesTheOldWhereItIs() {
        assertThat(bench("scope replaces:classic", "classic").there("classic@1.0").far(AVAILABLE, "scope").outcomes())
                .doesNotContainKey("classic");
    }

    @Test
    void whatAnAssignmentPutThereGoesWithItWhereItSaysSo() {
        assertThat(left(AssignmentState.RETIRED, Leaving.REMOVE)).isEqualTo("uninstall left");
        assertThat(left(AssignmentState.RETIRED, Leaving.KEEP)).isEqualTo("nothing");
    }

    @Test
    void aPausedAssignmentRemovesNothing() {
        assertThat(left(AssignmentState.PAUSED, Leaving.REMOVE)).isEqualTo("nothing");
    }

    @Test
    void aLiveAssignmentThatReachesItNoMoreRemovesItWhereItSaysSo() {
        Bench bench = bench("scope").there("scope@1.0 by:a1");
        bench.assign(bench.next(REQUIRED, "scope", Target.ou("works")).withLeaving(Leaving.REMOVE));
        assertThat(bench.outcome("scope")).isEqualTo("uninstall left");
    }

    @Test
    void whatAnotherNeedsStaysThoughItsAssignmentSaysThatItGoes() {
        Bench bench = bench("scope needs:kit", "kit fits:never").there("kit@1.0 by:a1");
        bench.assign(bench.next(REQUIRED, "kit", Target.ou("labs")).withState(AssignmentState.RETIRED).withLeaving(Leaving.REMOVE));
        assertThat(bench.outcome("kit")).isEqualTo("uninstall left");
        bench.far(REQUIRED, "scope");
        assertThat(bench.outcome("scope")).isEqualTo("required assigned");
        assertThat(bench.outcome("kit")).isEqualTo("nothing");
    }

    private static String left(AssignmentState state, Leaving leaving) {
        Bench bench = bench("scope").there("scope@1.0 by:a1");
        bench.assign(bench.next(REQUIRED, "scope", Target.ou("labs")).withState(state).withLeaving(leaving));
        return bench.outcome("scope");
    }

    @Test
    void whatShallGoGoesWhateverStandsAgainstIt() {
        assertThat(bench("scope conflicts:mud", "mud").near(REQUIRED, "scope").far(UNINSTALL, "mud").outcome("mud"))
                .isEqualTo("uninstall assigned");
    }

    @Test
    void seatsGoToThoseWhoHaveItFirst() {
        Bench bench = bench("cad seats:1").far(REQUIRED, "cad");
        assertThat(bench.outcome("cad")).as("d-bench comes before d-labs").isEqualTo("waiting assigned");
        assertThat(bench.there("cad@1.0").outcome("cad")).as("it has it already").isEqualTo("required assigned");
    }

    @Test
    void whoWaitsForASeatKeepsNothingOff() {
        Bench bench = bench("cad seats:0 conflicts:mud", "mud").near(REQUIRED, "cad").far(REQUIRED, "mud");
        assertThat(bench.outcomes()).containsEntry("cad", "waiting assigned").containsEntry("mud", "required assigned");
    }

    @Test
    void whatCameAlongStandsSinceThenAlsoWhereItIsRequiredItself() {
        Bench bench = bench("tool needs:kit", "kit", "other", "victim conflicts:kit conflicts:other")
                .near(REQUIRED, "tool").far(REQUIRED, "other").far(REQUIRED, "kit").far(REQUIRED, "victim");
        assertThat(bench.outcome("victim")).isEqualTo("displaced by kit");
    }
}
