package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rivo.server.SmallEstate.assignment;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.server.SmallEstate;

/** What edits do to assignments. */
class EditsTest {

    private static final Function<String, Map<String, String>> FIXES_NOTHING = assignment -> Map.of();

    private static Estate estate(Assignment... assignments) {
        return SmallEstate.with(List.of(), assignments);
    }

    private static DraftEdit edit(String ou, String intent) {
        return DraftEdit.title("siltscope", ou, intent, false);
    }

    private static List<Assignment> changes(Estate before, List<DraftEdit> edits) {
        return Edits.changes(before, FIXES_NOTHING, edits).assignments();
    }

    private static boolean isActive(Assignment assignment) {
        return assignment.state() == AssignmentState.ACTIVE;
    }

    @Test
    void anEditAddsAnAssignmentAfterAllOthers() {
        List<Assignment> changes = changes(estate(assignment("a7", 7, Intent.REQUIRED, "works")),
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
        assertThat(Edits.isSo(estate, FIXES_NOTHING, edit("labs", "required"))).isTrue();
        assertThat(Edits.isSo(estate, FIXES_NOTHING, edit("labs", "uninstall"))).isFalse();
        assertThat(Edits.isSo(estate, FIXES_NOTHING, edit("works", "none"))).isTrue();
    }

    @Test
    void anotherIntentRetiresWhatWasThere() {
        List<Assignment> changes = changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs")),
                List.of(edit("labs", "uninstall")));
        assertThat(changes).extracting(Assignment::id, EditsTest::isActive).containsExactly(
                org.assertj.core.api.Assertions.tuple("a1", false), org.assertj.core.api.Assertions.tuple("a2", true));
    }

    @Test
    void anAssignmentThatNamesOtherOusGoesOnThere() {
        List<Assignment> changes = changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs", "works")),
                List.of(edit("labs", "none")));
        assertThat(changes).singleElement().satisfies(a -> {
            assertThat(isActive(a)).isTrue();
            assertThat(a.include()).containsExactly(Target.ou("works"));
        });
    }

    @Test
    void twoEditsTakeTwoOusOutOfOneAssignment() {
        List<Assignment> changes = changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs", "works")),
                List.of(edit("labs", "none"), edit("works", "none")));
        assertThat(changes).singleElement().satisfies(a -> assertThat(isActive(a)).isFalse());
    }

    @Test
    void ofTwoThatAskForTheSameOneStays() {
        List<Assignment> changes = changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs"),
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
        List<Assignment> changes = changes(torn, List.of(edit("labs", "uninstall")));
        assertThat(changes).extracting(Assignment::id).containsExactly("a1");
        assertThat(isActive(changes.get(0))).isFalse();
    }

    @Test
    void makingItBindingTakesThePlaceOfWhatWasNot() {
        List<Assignment> changes = changes(estate(assignment("a1", 1, Intent.REQUIRED, "labs")),
                List.of(DraftEdit.title("siltscope", "labs", "required", true)));
        assertThat(changes).extracting(Assignment::binding).containsExactly(false, true);
    }

    @Test
    void everythingThatDoesNotExistIsNamed() {
        assertThatThrownBy(() -> changes(estate(), List.of(edit("moon", "required"),
                DraftEdit.title("moonware", "labs", "required", false)))).isInstanceOfSatisfying(RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::place).containsExactly("edits[0].ou",
                                "edits[1].subject"));
    }

    private static DraftEdit english(Intent intent) {
        return new DraftEdit("title:siltscope", "labs", intent.word(), false, Map.of("languages", "en"));
    }

    @Test
    void otherChoicesMakeAnotherAssignment() {
        Estate estate = estate(assignment("a1", 1, Intent.REQUIRED, "labs"));
        Edits.Changes changes = Edits.changes(estate, FIXES_NOTHING, List.of(english(Intent.REQUIRED)));
        assertThat(changes.assignments()).extracting(Assignment::id, EditsTest::isActive).containsExactly(
                org.assertj.core.api.Assertions.tuple("a1", false), org.assertj.core.api.Assertions.tuple("a2", true));
        assertThat(changes.choices()).isEqualTo(Map.of("a2", Map.of("languages", "en")));
    }

    @Test
    void theSameChoicesChangeNothing() {
        Estate estate = estate(assignment("a1", 1, Intent.REQUIRED, "labs"));
        assertThat(Edits.isSo(estate, id -> Map.of("languages", "en"), english(Intent.REQUIRED))).isTrue();
        assertThat(Edits.isSo(estate, id -> Map.of("languages", "cy"), english(Intent.REQUIRED))).isFalse();
    }

    @Test
    void aKitIsAssignedBesideItsTitles() {
        Estate estate = estate(assignment("a1", 1, Intent.REQUIRED, "labs")).withKit(new Kit("bench", "Lab bench",
                List.of("siltscope")));
        DraftEdit kit = new DraftEdit("kit:bench", "labs", "required", false, null);
        List<Assignment> changes = changes(estate, List.of(kit));
        assertThat(changes).extracting(a -> a.subject().toString()).containsExactly("kit:bench");
        Estate after = estate.withAssignments(changes);
        assertThat(after.assignments().of("siltscope")).extracting(Assignment::id).containsExactly("a1", "a2");
        assertThat(changes(after, List.of(edit("labs", "none")))).as("ending the title's own leaves the kit's")
                .extracting(Assignment::id).containsExactly("a1");
        assertThat(changes(after, List.of(new DraftEdit("kit:bench", "labs", "none", false, null))))
                .extracting(Assignment::id).containsExactly("a2");
    }

    @Test
    void aKitThatDoesNotExistAndAKitWithChoicesAreRefused() {
        assertThatThrownBy(() -> changes(estate(), List.of(new DraftEdit("kit:bench", "labs", "required", false,
                Map.of("languages", "en"))))).isInstanceOfSatisfying(RefusedException.class, e -> assertThat(e.problems())
                        .extracting(Problem::code).containsExactly("unknown-kit", "kit-has-no-choices"));
        assertThatThrownBy(() -> new DraftEdit("siltscope", "labs", "required", false, null))
                .isInstanceOf(RefusedException.class).hasMessageContaining("title:ID or kit:ID");
    }

    @Test
    void noEditsChangeNothing() {
        assertThat(changes(estate(), List.of())).isEmpty();
    }
}
