package rivo.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.audience.Unit;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Intent;
import rivo.core.estate.Present;
import rivo.core.estate.Request;
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

    /** Both come to the same without a release, whether they were asked for or not. */
    @Test
    void whatFitsNobodyIsDifferentForThoseWhoHaveAskedForItToo() {
        Estates estates = Estates.usual().device("d-labs", "labs");
        Assignment offered = Assignment.of("offer", 7, Subject.title("empty"), Intent.AVAILABLE, List.of(Target.ALL_DEVICES));
        Estate usual = estates.estate();
        Estate before = Estate.of(usual.parts().withTitles(List.of(Title.of("empty", "Empty", List.of()))).withAssignments(List.of(offered))
                .withRequests(List.of(new Request("d-labs", "empty", null))));
        Rehearsal rehearsal = Rehearsal.of(Resolver.of(before), before.withAssignments(List.of(offered.retired())));
        assertThat(Objects.requireNonNull(rehearsal.of("empty")).differences().stream().mapToInt(difference -> difference.units().size()).sum())
                .isEqualTo(before.devices().size());
    }

    @Test
    void onlyWhatTheEditCanTouchIsLookedAt() {
        Rehearsal rehearsal = adding(Estates.usual(), Intent.REQUIRED, "labs");
        assertThat(rehearsal.titles()).extracting(t -> t.title().id()).containsExactly("siltscope");
    }

    @Test
    void aTitleThatBecomesOnePerPersonIsGoneFromDevicesAndNewForPeople() {
        Estates estates = Estates.usual().user("eda", "labs").user("finn", "labs")
                .device(new Device("d-shared", "d-shared", "labs", List.of("finn", "eda"), Facts.NONE, List.of(), List.of())).assign(Intent.REQUIRED, "labs");
        Resolver before = estates.resolver();
        Title device = before.estate().title("siltscope");
        Title personal = new Title(device.id(), device.name(), Scope.USER, null, device.conflictsWith(), device.releases());
        Resolver after = before.follow(before.estate().withTitle(personal));
        TitleDifference difference = siltscope(Rehearsal.of(before, after));
        assertThat(difference.gone()).flatExtracting(d -> before.audiences().each(d.units()).map(Unit::device).toList()).extracting(Device::id)
                .contains("d-shared", "d-labs");
        assertThat(difference.differences()).flatExtracting(d -> after.audiences().each(d.units()).toList())
                .filteredOn(unit -> unit.device().id().equals("d-shared")).extracting(Unit::user).containsExactly("eda", "finn");
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

    private static String why(Estate before, Estate after) {
        TitleDifference difference = Rehearsal.of(Resolver.of(before), after).of("siltscope");
        return difference == null ? "not looked at" : difference.why();
    }

    /** For each kind of change, what is said of the title that it touches. */
    @Test
    void theReasonForWhichATitleIsLookedAtIsSaid() {
        Estates usual = Estates.usual();
        usual.assignment(usual.next("siltscope", Intent.REQUIRED, Target.ou("labs")).withWithin("ramGiB ge 8"));
        Estate before = usual.estate();
        EstateParts parts = before.parts();
        Assignment one = before.assignments().all().get(0);
        assertThat(why(before, before)).isEqualTo("not looked at");
        assertThat(why(before, before.withAssignments(List.of(one.withPriority(700))))).isEqualTo("a1 is edited");
        assertThat(why(before, before.withAssignments(List.of(one.retired())))).isEqualTo("a1 is edited");
        assertThat(why(before, Estate.of(parts.withAssignments(List.of())))).isEqualTo("a1 no longer assigns it");
        assertThat(why(before, before.withAssignments(List.of(Assignment.of("a2", 2, Subject.title("siltscope"), Intent.REQUIRED,
                List.of(Target.ALL_DEVICES)))))).isEqualTo("a2 is added");
        assertThat(why(before, Estate.of(parts.withTitles(parts.titles().stream().map(t -> t.id().equals("siltscope")
                ? Title.of(t.id(), "Siltscope, renamed", List.copyOf(t.releases())) : t).toList())))).isEqualTo("its entry in the catalogue is edited");
        assertThat(why(before, before.withRequests(List.of(new Request("d-labs", "siltscope", null)))))
                .isEqualTo("a request for it came or went");
        Estate eightGiB = before.withDevice(Objects.requireNonNull(before.devices().find("d-labs"))
                .withReport(Estates.facts("ramGiB", "8"), List.of(), List.of()));
        assertThat(why(before, eightGiB)).startsWith("whom a1 reaches through ");
        Estate there = before.withDevice(Objects.requireNonNull(before.devices().find("d-labs"))
                .withReport(Estates.facts(), List.of(), List.of(Present.of("siltscope", null))));
        assertThat(why(before, there)).isEqualTo("where it is present is different");
        assertThat(why(Estate.of(parts.withTitles(parts.titles().stream().filter(t -> !t.id().equals("siltscope")).toList())
                .withAssignments(List.of())), before)).isEqualTo("it is new in the catalogue");
        assertThat(why(before, Estate.of(parts.withTitles(parts.titles().stream().filter(t -> !t.id().equals("siltscope")).toList())
                .withAssignments(List.of())))).isEqualTo("it has gone from the catalogue");
        assertThat(why(before, before.withDevice(Objects.requireNonNull(before.devices().find("d-labs")).withOu("works"))))
                .isEqualTo("devices or people came, went or moved");
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
        assertThat(siltscope(rehearsal).gains().size()).as("at works nothing conflicts with it any more").isEqualTo(1);
    }
}
