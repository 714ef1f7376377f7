package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rivo.server.SmallEstate.assignment;

import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.server.SmallEstate;

/** What edits do to assignments. */
class EditsTest {

    private static Estate estate(Assignment... assignments) {
        return SmallEstate.with(List.of(), assignments);
    }

    private static DraftEdit edit(String ou, String intent) {
        return new DraftEdit("siltscope", ou, intent, false);
    }

    private static boolean isActive(Assignment assignment) {
        return assignment.state() == AssignmentState.ACTIVE;
    }

    @Test
    void anEditAddsAnAssignmentAfterAllOthers() {
        List<Assignment> changes = Edits.changes(estate(assignment("a7", 7, Intent.REQUIRED, "works")),
                List.of(edit("labs", "uninstall")));
        assertThat(changes).singleElement().satisfies(a -> {
            assertThat(a.id()).isEqualTo("a8");
            assertThat(a.intent()).isEqualTo(Intent.UNINSTALL);
            assertThat(a.include()).containsExactly(Target.ou("labs"));
        });
    }

    @Test
    void whatIsThereAlreadyChangesNothing() {
        Estate estate = estate(assignment("a1", 1, Intent.REQUIRED, "labs"));
        assertThat(Edits.isSo(estate, edit("labs", "required"))).isTrue();
        assertThat(Edits.isSo(estate, edit("labs", "uninstall"))).isFalse();
        assertThat(Edits.isSo(estate, edit("works", "none"))).isTrue();
    }

    @Test
    void anotherIntentRetiresWhatWasThere() {
        List<Assignment> changes = Edits.changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs")),
                List.of(edit("labs", "uninstall")));
        assertThat(changes).extracting(Assignment::id, EditsTest::isActive).containsExactly(
                org.assertj.core.api.Assertions.tuple("a1", false), org.assertj.core.api.Assertions.tuple("a2", true));
    }

    @Test
    void anAssignmentThatNamesOtherOusGoesOnThere() {
        List<Assignment> changes = Edits.changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs", "works")),
                List.of(edit("labs", "none")));
        assertThat(changes).singleElement().satisfies(a -> {
            assertThat(isActive(a)).isTrue();
            assertThat(a.include()).containsExactly(Target.ou("works"));
        });
    }

    @Test
    void twoEditsTakeTwoOusOutOfOneAssignment() {
        List<Assignment> changes = Edits.changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs", "works")),
                List.of(edit("labs", "none"), edit("works", "none")));
        assertThat(changes).singleElement().satisfies(a -> assertThat(isActive(a)).isFalse());
    }

    @Test
    void ofTwoThatAskForTheSameOneStays() {
        List<Assignment> changes = Edits.changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs"),
                assignment("a2", 2, Intent.REQUIRED, "labs")), List.of(edit("labs", "required")));
        assertThat(changes).singleElement().satisfies(a -> {
            assertThat(a.id()).isEqualTo("a2");
            assertThat(isActive(a)).isFalse();
        });
    }

    @Test
    void contestedOnesAreSettledByAnEdit() {
        Estate torn = estate(assignment("a1", 1, Intent.REQUIRED, "labs"), assignment("a2", 2, Intent.UNINSTALL,
                "labs"));
        List<Assignment> changes = Edits.changes(torn, List.of(edit("labs", "uninstall")));
        assertThat(changes).extracting(Assignment::id).containsExactly("a1");
        assertThat(isActive(changes.get(0))).isFalse();
    }

    @Test
    void makingItBindingTakesThePlaceOfWhatWasNot() {
        List<Assignment> changes = Edits.changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs")),
                List.of(new DraftEdit("siltscope", "labs", "required", true)));
        assertThat(changes).extracting(Assignment::binding).containsExactly(false, true);
    }

    @Test
    void everythingThatDoesNotExistIsNamed() {
        assertThatThrownBy(() -> Edits.changes(estate(), List.of(edit("moon", "required"),
                new DraftEdit("moonware", "labs", "required", false)))).isInstanceOfSatisfying(RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::place).containsExactly("edits[0].ou",
                                "edits[1].title"));
    }

    @Test
    void noEditsChangeNothing() {
        assertThat(Edits.changes(estate(), List.of())).isEmpty();
    }
}
