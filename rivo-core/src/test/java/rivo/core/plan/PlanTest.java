package rivo.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.Version;

class PlanTest {

    private static final Title GRAPHKIT = new Title("graphkit", "Graphkit runtime",
            List.of(new Release(Version.of("2.4.1"), ReleaseState.OFFERED, List.of("all"))));

    private static Plan plan(Estate estate) {
        return Plan.of(estate, Objects.requireNonNull(estate.devices().find("d-labs")));
    }

    @Test
    void whatComesOffStandsBeforeWhatGoesOn() {
        Estate estate = Estates.usual().assign("siltscope", REQUIRED, "labs").build().withTitle(GRAPHKIT)
                .withAssignments(List.of(new Assignment("a9", 9, AssignmentState.ACTIVE, "graphkit", UNINSTALL,
                        List.of("root"), false, 500)));
        assertThat(plan(estate).actions()).extracting(Action::title).containsExactly("graphkit", "siltscope");
        assertThat(plan(estate).actions()).extracting(Action::kind).containsExactly(Action.Kind.REMOVE,
                Action.Kind.INSTALL);
    }

    @Test
    void whatGoesOnStandsInTheOrderOfPublishing() {
        Estate estate = Estates.usual().build().withTitle(GRAPHKIT).withAssignments(List.of(
                new Assignment("a9", 9, AssignmentState.ACTIVE, "siltscope", REQUIRED, List.of("root"), false, 500),
                new Assignment("a8", 8, AssignmentState.ACTIVE, "graphkit", REQUIRED, List.of("labs"), false, 500)));
        assertThat(plan(estate).actions()).extracting(Action::title).containsExactly("graphkit", "siltscope");
    }

    @Test
    void whatIsContestedOrDoesNotFitIsLeftAlone() {
        Estate estate = Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", UNINSTALL, "labs")
                .assign("empty", REQUIRED, "labs").build();
        assertThat(plan(estate).actions()).isEmpty();
    }

    @Test
    void anInstallNamesItsReleaseAndVariant() {
        Action action = plan(Estates.usual().assign("siltscope", REQUIRED, "labs").build()).actions().get(0);
        assertThat(action.version()).hasToString("4.2.0");
        assertThat(action.variant()).isEqualTo("x64");
        assertThat(action.assignment().id()).isEqualTo("a1");
    }

    @Test
    void aRemovalHasNoRelease() {
        Assignment by = new Assignment("a", 1, AssignmentState.ACTIVE, "t", UNINSTALL, List.of(), false, 500);
        assertThatThrownBy(() -> new Action(Action.Kind.REMOVE, "t", Version.of("1"), "v", by, ""))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
