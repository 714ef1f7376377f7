package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static rivo.server.SmallEstate.assignment;

import java.time.Instant;
import java.util.List;
import java.util.Map;
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
import rivo.server.SmallSnapshot;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.estate.Snapshot;

/** What wishes for an OU do to assignments. */
class AssignmentsAtOuTest {

    private static Estate estate(Assignment... assignments) {
        return SmallEstate.with(List.of(), assignments);
    }

    private static Snapshot snapshot(Assignment... assignments) {
        return SmallSnapshot.of(estate(assignments), Map.of());
    }

    private static OuAssignment wish(String ou, String intent) {
        return OuAssignment.title("siltscope", ou, intent, false);
    }

    private static Draft draft(Snapshot before, List<OuAssignment> wishes) {
        Draft draft = Draft.EMPTY;
        for (OuAssignment wish : wishes) {
            draft = draft.with(AssignmentsAtOu.edits(before, draft, wish));
        }
        return draft;
    }

    private static Snapshot after(Snapshot before, OuAssignment... wishes) {
        return DraftedSnapshot.of(before, draft(before, List.of(wishes)).edits(), new DraftedSnapshot.By("test", Instant.EPOCH, 1L)).after();
    }

    /** Those that are new or different, the oldest first. */
    private static List<Assignment> changes(Snapshot before, OuAssignment... wishes) {
        return after(before, wishes).estate().assignments().all().stream()
                .filter(a -> !a.equals(before.estate().assignments().find(a.id()))).toList();
    }

    private static boolean isActive(Assignment assignment) {
        return assignment.state() == AssignmentState.ACTIVE;
    }

    @Test
    void aNewAssignmentComesAfterAllOthers() {
        Snapshot before = snapshot(assignment("a7", 7, Intent.REQUIRED, "works"));
        assertThat(changes(before, wish("labs", "uninstall"))).singleElement().satisfies(a -> {
            assertThat(a.seq()).isEqualTo(8);
            assertThat(a.intent()).isEqualTo(Intent.UNINSTALL);
            assertThat(a.include()).containsExactly(Target.ou("labs"));
        });
    }

    @Test
    void severalNewOnesAreNumberedInTheirOrder() {
        assertThat(changes(snapshot(), wish("labs", "required"), wish("works", "uninstall"))).extracting(Assignment::seq, Assignment::intent)
                .containsExactly(tuple(1L, Intent.REQUIRED), tuple(2L, Intent.UNINSTALL));
    }

    @Test
    void whatIsThereAlreadyChangesNothing() {
        Snapshot before = snapshot(assignment("a1", 1, Intent.REQUIRED, "labs"));
        assertThat(draft(before, List.of(wish("labs", "required"))).steps()).isEmpty();
        assertThat(draft(before, List.of(wish("labs", "uninstall"))).steps()).hasSize(1);
        assertThat(draft(before, List.of(wish("works", "none"))).steps()).isEmpty();
    }

    @Test
    void anotherIntentIsAnEditOfWhatIsThere() {
        assertThat(changes(snapshot(assignment("a1", 1, Intent.REQUIRED, "labs")), wish("labs", "uninstall")))
                .extracting(Assignment::id, Assignment::seq, Assignment::intent).containsExactly(tuple("a1", 1L, Intent.UNINSTALL));
    }

    @Test
    void noneRetiresIt() {
        assertThat(changes(snapshot(assignment("a1", 1, Intent.REQUIRED, "labs")), wish("labs", "none"))).singleElement()
                .satisfies(a -> assertThat(isActive(a)).isFalse());
    }

    @Test
    void anAssignmentThatNamesOtherOusGoesOnThere() {
        Snapshot before = snapshot(assignment("a1", 1, Intent.REQUIRED, "labs", "works"));
        assertThat(changes(before, wish("labs", "none"))).singleElement().satisfies(a -> {
            assertThat(isActive(a)).isTrue();
            assertThat(a.include()).containsExactly(Target.ou("works"));
        });
        assertThat(changes(before, wish("labs", "uninstall"))).extracting(Assignment::intent, Assignment::include)
                .containsExactly(tuple(Intent.REQUIRED, List.of(Target.ou("works"))), tuple(Intent.UNINSTALL, List.of(Target.ou("labs"))));
    }

    @Test
    void twoWishesTakeTwoOusOutOfOneAssignment() {
        assertThat(changes(snapshot(assignment("a1", 1, Intent.REQUIRED, "labs", "works")), wish("labs", "none"), wish("works", "none")))
                .singleElement().satisfies(a -> assertThat(isActive(a)).isFalse());
    }

    @Test
    void aSecondWishForTheSameOuTakesThePlaceOfTheFirst() {
        Snapshot before = snapshot(assignment("a1", 1, Intent.REQUIRED, "labs"));
        assertThat(draft(before, List.of(wish("labs", "uninstall"), wish("labs", "none"))).edits()).extracting(Edit::act)
                .containsExactly(Act.RETIRE);
        assertThat(draft(before, List.of(wish("labs", "none"), wish("labs", "required"))).edits()).as("as it was").isEmpty();
        assertThat(draft(before, List.of(wish("labs", "uninstall"), wish("labs", "required"))).edits()).as("as it is").isEmpty();
        assertThat(draft(before, List.of(wish("works", "required"), wish("works", "none"))).edits()).as("never published").isEmpty();
    }

    @Test
    void ofTwoThatAskForTheSameOneStays() {
        assertThat(changes(snapshot(assignment("a1", 1, Intent.REQUIRED, "labs"), assignment("a2", 2, Intent.REQUIRED, "labs")),
                wish("labs", "required"))).singleElement().satisfies(a -> {
                    assertThat(a.id()).isEqualTo("a2");
                    assertThat(isActive(a)).isFalse();
                });
    }

    @Test
    void contestedOnesAreSettledByOneWish() {
        Snapshot torn = snapshot(assignment("a1", 1, Intent.REQUIRED, "labs"), assignment("a2", 2, Intent.UNINSTALL, "labs"));
        assertThat(changes(torn, wish("labs", "uninstall"))).singleElement().satisfies(a -> {
            assertThat(a.id()).isEqualTo("a1");
            assertThat(isActive(a)).isFalse();
        });
    }

    @Test
    void itCanBeMadeBinding() {
        assertThat(changes(snapshot(assignment("a1", 1, Intent.REQUIRED, "labs")), OuAssignment.title("siltscope", "labs", "required", true)))
                .extracting(Assignment::id, Assignment::binding).containsExactly(tuple("a1", true));
    }

    @Test
    void everythingThatDoesNotExistIsNamed() {
        assertThatThrownBy(() -> draft(snapshot(), List.of(OuAssignment.title("moonware", "moon", "required", false))))
                .isInstanceOfSatisfying(RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::code, Problem::place).containsExactly(
                                tuple("unknown-title", "subject"), tuple("unknown-ou", "ou")));
    }

    @Test
    void choicesAreKeptAndCompared() {
        Snapshot before = SmallSnapshot.of(estate(assignment("a1", 1, Intent.REQUIRED, "labs")), Map.of("a1", Map.of("languages", "en")));
        assertThat(draft(before, List.of(wish("labs", "required"))).edits()).as("other choices").hasSize(1);
        assertThat(after(before, wish("labs", "required")).get(AssignmentDocument.KIND).find("a1").delivery().choices()).isEmpty();
        assertThat(after(before, wish("works", "required")).get(AssignmentDocument.KIND).find("a1").delivery().choices())
                .isEqualTo(Map.of("languages", "en"));
    }

    @Test
    void anEditSaysWhomItConcerns() {
        Snapshot before = SmallSnapshot.of(estate(assignment("a1", 1, Intent.REQUIRED, "labs", "works")), Map.of("a1", Map.of("languages", "en")));
        EditView without = EditView.of(before, draft(before, List.of(wish("labs", "none"))).edits().get(0));
        assertThat(without.places()).as("those that come or go").containsExactly(new EditView.Place("ou:labs", "Laboratories", "none", "required"));
        Snapshot alone = SmallSnapshot.of(estate(assignment("a1", 1, Intent.REQUIRED, "labs")), Map.of("a1", Map.of("languages", "en")));
        EditView choices = EditView.of(alone, draft(alone, List.of(wish("labs", "required"))).edits().get(0));
        assertThat(choices.places()).as("all, where something else is different")
                .containsExactly(new EditView.Place("ou:labs", "Laboratories", "required", "required"));
        EditView ended = EditView.of(alone, draft(alone, List.of(wish("labs", "none"))).edits().get(0));
        assertThat(ended.places()).containsExactly(new EditView.Place("ou:labs", "Laboratories", "none", "required"));
        assertThat(ended.act() + " " + ended.name() + " " + ended.choices()).isEqualTo("retire Siltscope Lab {}");
    }

    @Test
    void aKitIsAssignedBesideItsTitles() {
        Snapshot before = SmallSnapshot.of(estate(assignment("a1", 1, Intent.REQUIRED, "labs")).withKit(new Kit("bench", "Lab bench",
                List.of("siltscope"))), Map.of());
        OuAssignment kit = new OuAssignment("kit:bench", "labs", "required", false, null);
        assertThat(changes(before, kit)).extracting(a -> a.subject().toString()).containsExactly("kit:bench");
        Snapshot after = after(before, kit);
        assertThat(after.estate().assignments().of("siltscope")).hasSize(2);
        assertThat(changes(after, wish("labs", "none"))).as("ending the title's own leaves the kit's").extracting(Assignment::id)
                .containsExactly("a1");
        assertThat(changes(after, new OuAssignment("kit:bench", "labs", "none", false, null))).extracting(a -> a.subject().toString())
                .containsExactly("kit:bench");
    }

    @Test
    void aKitThatDoesNotExistAndAKitWithChoicesAreRefused() {
        assertThatThrownBy(() -> draft(snapshot(), List.of(new OuAssignment("kit:bench", "labs", "required", false,
                Map.of("languages", "en"))))).isInstanceOfSatisfying(RefusedException.class, e -> assertThat(e.problems())
                        .extracting(Problem::code).containsExactly("unknown-kit", "kit-has-no-choices"));
        assertThatThrownBy(() -> new OuAssignment("siltscope", "labs", "required", false, null))
                .isInstanceOf(RefusedException.class).hasMessageContaining("title:ID or kit:ID");
    }
}
