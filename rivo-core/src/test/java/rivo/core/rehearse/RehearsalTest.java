package rivo.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Present;
import rivo.core.estate.Subject;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.resolve.Resolver;

class RehearsalTest {

    private static Rehearsal adding(Estates estates, Intent intent, String ou) {
        Estate before = estates.estate();
        Assignment added = Assignment.of("new", before.assignments().nextSeq(), Subject.title("siltscope"), intent,
                List.of(Target.ou(ou)));
        return Rehearsal.of(Resolver.of(before), before.withAssignments(List.of(added)));
    }

    private static TitleDifference siltscope(Rehearsal rehearsal) {
        return Objects.requireNonNull(rehearsal.of("siltscope"));
    }

    @Test
    void whoGainsAndWhoHasToFetchIsCounted() {
        Estates estates = Estates.usual().device("d-labs", "labs", Present.of("siltscope", Version.of("4.2")));
        Rehearsal rehearsal = adding(estates, Intent.REQUIRED, "labs");
        TitleDifference difference = siltscope(rehearsal);
        assertThat(difference.gains().size()).isEqualTo(3);
        assertThat(difference.with(Effect.GAINS)).isEqualTo(difference.gains());
        assertThat(difference.fetches(Resolver.of(estates.estate()).audiences()).size())
                .as("one has the chosen release already").isEqualTo(2);
        assertThat(difference.why()).isEqualTo("new is added");
    }

    @Test
    void onlyWhatTheEditCanTouchIsLookedAt() {
        Rehearsal rehearsal = adding(Estates.usual(), Intent.REQUIRED, "labs");
        assertThat(rehearsal.titles()).extracting(t -> t.title().id()).containsExactly("siltscope");
    }

    @Test
    void aRemovalThatWillHappenIsToldApart() {
        TitleDifference difference = siltscope(adding(Estates.usual()
                .device("d-bench", "bench", Present.of("siltscope", null)).assign(Intent.REQUIRED, "root"),
                Intent.UNINSTALL, "labs"));
        assertThat(difference.removes().size()).isEqualTo(3);
        assertThat(difference.loses().size()).isEqualTo(3);
        assertThat(difference.removesPresent(Resolver.of(Estates.usual()
                .device("d-bench", "bench", Present.of("siltscope", null)).estate()).audiences()).size()).isEqualTo(1);
    }

    @Test
    void whatBecomesContestedAndWhatIsSettledIsSaid() {
        Estates estates = Estates.usual().assign(Intent.REQUIRED, "labs");
        assertThat(siltscope(adding(estates, Intent.UNINSTALL, "labs")).newlyContested().size()).isEqualTo(3);
        Estate contested = Estates.usual().assign(Intent.REQUIRED, "labs").assign(Intent.UNINSTALL, "labs").estate();
        Estate settled = contested.withAssignments(List.of(Objects.requireNonNull(contested.assignments().find("a2")).retired()));
        assertThat(siltscope(Rehearsal.of(Resolver.of(contested), settled)).settled().size()).isEqualTo(3);
    }

    @Test
    void anEditThatChangesNothingComesToNothing() {
        Rehearsal rehearsal = adding(Estates.usual().assign(Intent.REQUIRED, "labs"), Intent.REQUIRED, "labs");
        assertThat(rehearsal.changed()).as("the older of two level ones wins").isEmpty();
        assertThat(rehearsal.titles()).hasSize(1);
    }

    @Test
    void aMembershipTouchesTheTitlesThatNameTheGroup() {
        Estates estates = Estates.usual().group("crew", Target.device("d-labs"));
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.group("crew")));
        estates.assignment(estates.next("mudview", Intent.REQUIRED, Target.ou("labs")));
        Estate before = estates.estate();
        Estate after = before.withGroup(new rivo.core.estate.Group("crew", "crew", List.of(Target.device("d-works"))));
        Rehearsal rehearsal = Rehearsal.of(Resolver.of(before), after);
        assertThat(rehearsal.titles()).singleElement().satisfies(t -> {
            assertThat(t.why()).isEqualTo("whom a1 reaches through group:crew is different");
            assertThat(t.gains().size()).isEqualTo(1);
            assertThat(t.loses().size()).isEqualTo(1);
        });
    }

    @Test
    void estatesWithOtherDevicesAreComparedByTheirIds() {
        Estates estates = Estates.usual().assign(Intent.REQUIRED, "root");
        Resolver before = Resolver.of(estates.estate());
        Resolver after = Resolver.of(Estates.usual().device("a-new-one", "labs").assign(Intent.REQUIRED, "root").estate());
        assertThat(siltscope(Rehearsal.of(before, after)).gains().size()).isEqualTo(1);
        TitleDifference gone = siltscope(Rehearsal.of(after, before));
        assertThat(gone.differences()).isEmpty();
        assertThat(gone.gone()).singleElement().satisfies(d -> assertThat(d.effect()).isEqualTo(Effect.LOSES));
    }

    @Test
    void anEditIsTheReasonForRelatedTitlesThoughSomebodyMovedToo() {
        Estates estates = Estates.usual().title(new Title("tidecalc", "Tidecalc", Scope.DEVICE, null, List.of("siltscope"),
                List.of(Estates.release("1.0")))).assign(Intent.REQUIRED, "root");
        estates.assignment(estates.next("tidecalc", Intent.REQUIRED, Target.ou("works")));
        Estate before = estates.estate();
        Estate after = before.withDevice(Objects.requireNonNull(before.devices().find("d-bench")).withOu("works"))
                .withAssignments(List.of(Objects.requireNonNull(before.assignments().find("a2")).retired()));
        Rehearsal rehearsal = Rehearsal.of(Resolver.of(before), after);
        assertThat(rehearsal.titles()).extracting(t -> t.title().id() + ": " + t.why()).containsExactlyInAnyOrder(
                "siltscope: it is related to Tidecalc", "tidecalc: a2 is edited",
                "mudview: devices or people came, went or moved");
        assertThat(siltscope(rehearsal).gains().size()).as("at works nothing stands against it any more").isEqualTo(1);
    }
}
