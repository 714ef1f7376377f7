package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.core.rehearse.Rehearsal;

/** What goes along from one resolver to the next, as the very same objects, and what does not. */
class CarryingTest {

    private final Estates estates = Estates.usual().title(Title.of("tidecalc", "Tidecalc", List.of(Release.of(Version.of("1.0"),
            List.of(new Variant("x64", "arch eq \"x64\""))))))
            .title(new Title("valvewright", "Valvewright", Scope.DEVICE, 2, List.of(), List.of(Estates.release("1.0"))))
            .group("crew", Target.device("d-labs")).group("loans", Target.device("d-works"));

    private static final List<String> TITLES = List.of("siltscope", "mudview", "tidecalc", "valvewright");

    private Resolver warm() {
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.group("crew")).withExclude(List.of(
                Target.group("loans"))));
        estates.assignment(estates.next("mudview", Intent.REQUIRED, Target.ou("labs")).withWithin("ramGiB ge 8"));
        estates.assignment(estates.next("tidecalc", Intent.REQUIRED, Target.ou("root")));
        estates.assignment(estates.next("valvewright", Intent.REQUIRED, Target.ou("root")));
        Resolver resolver = estates.resolver();
        resolver.all();
        return resolver;
    }

    private static List<String> sameContenders(Resolver before, Resolver now) {
        return TITLES.stream().filter(id -> now.rankedPairs(title(now, id)) == before.rankedPairs(title(before, id))).toList();
    }

    private static Title title(Resolver resolver, String id) {
        return Objects.requireNonNull(resolver.estate().title(id));
    }

    private static Device labs(Estate estate) {
        return Objects.requireNonNull(estate.devices().find("d-labs"));
    }

    private static Resolver reporting(Resolver before, String... facts) {
        Device device = labs(before.estate());
        return before.follow(before.estate().withDevice(device.withReport(Estates.facts(facts), List.of(), device.present())));
    }

    @Test
    void aReportThatNoRuleLooksAtLeavesEveryLadder() {
        Resolver before = warm();
        assertThat(sameContenders(before, reporting(before, "site", "Hartsmere"))).isEqualTo(TITLES);
    }

    @Test
    void aReportThatARuleLooksAtRemakesTheTitlesOfThatRule() {
        Resolver before = warm();
        assertThat(sameContenders(before, reporting(before, "ramGiB", "16"))).doesNotContain("mudview").hasSize(3);
        assertThat(sameContenders(before, reporting(before, "arch", "x64"))).doesNotContain("tidecalc").hasSize(3);
    }

    @Test
    void whatIsPresentIsFoundOutOnceForBothSidesOfAnEditAlsoWhereNobodyHasAsked() {
        warm();
        Resolver before = estates.resolver();
        Assignment edited = before.estate().assignments().all().get(0);
        Resolver edit = before.follow(before.estate().withAssignments(List.of(edited.withPriority(7))));
        assertThat(edit.presences()).isSameAs(before.presences());
    }

    @Test
    void whatIsPresentIsNotTakenFromOneThatDoesNotHaveIt() {
        warm();
        Resolver before = estates.resolver();
        Device device = labs(before.estate());
        Resolver now = before.follow(before.estate().withDevice(device.withReport(device.facts(), List.of(), List.of(Present.of("mudview", Version.of("1.0"))))));
        assertThat(now.presences().anyhow("mudview").size()).isEqualTo(1);
        assertThat(before.presences().anyhow("mudview").isEmpty()).isTrue();
    }

    @Test
    void aMembershipRemakesTheTitlesThatNameTheGroupAndAnExclusionNamesItToo() {
        Resolver before = warm();
        for (String group : List.of("crew", "loans")) {
            Resolver now = before.follow(before.estate().withGroup(new Group(group, group, List.of(Target.device("d-bench")))));
            assertThat(sameContenders(before, now)).as(group).doesNotContain("siltscope").hasSize(3);
        }
    }

    @Test
    void anEditedAssignmentRemakesItsTitleAndARequestToo() {
        Resolver before = warm();
        Resolver edited = before.follow(before.estate().withAssignments(List.of(Objects.requireNonNull(
                before.estate().assignments().find("a2")).withPriority(7))));
        assertThat(sameContenders(before, edited)).doesNotContain("mudview").hasSize(3);
        Resolver requested = before.follow(before.estate().withRequests(List.of(new Request("d-labs", "tidecalc", null))));
        assertThat(sameContenders(before, requested)).doesNotContain("tidecalc").hasSize(3);
    }

    @Test
    void aRequestChangesTheAnswersOfItsOwnDeviceAloneAndWithSeatsOfAll() {
        Resolver before = warm();
        Resolver requested = before.follow(before.estate().withRequests(List.of(new Request("d-labs", "tidecalc", null))));
        assertThat(requested.answers().of("d-labs")).isNotSameAs(before.answers().of("d-labs"));
        assertThat(requested.answers().of("d-bench")).isSameAs(before.answers().of("d-bench"));
        Resolver givenBack = requested.follow(requested.estate().withRequests(List.of()));
        assertThat(givenBack.answers().of("d-labs")).isNotSameAs(requested.answers().of("d-labs"));
        assertThat(givenBack.answers().of("d-bench")).isSameAs(before.answers().of("d-bench"));
        Resolver seat = before.follow(before.estate().withRequests(List.of(new Request("d-labs", "valvewright", null))));
        assertThat(seat.answers().of("d-bench")).isNotSameAs(before.answers().of("d-bench"));
    }

    @Test
    void wavesLookUpAnewWhomTheyTake() {
        estates.assignment(estates.next("siltscope", Intent.AVAILABLE, Target.ou("works")).withWaves(List.of(
                Wave.share(50, true), Wave.share(50, false))));
        Resolver before = warm();
        assertThat(sameContenders(before, reporting(before, "site", "Hartsmere"))).doesNotContain("siltscope").hasSize(3);
    }

    @Test
    void whoMovesLeavesNoLadderAsItWas() {
        Resolver before = warm();
        Resolver moved = before.follow(before.estate().withDevice(labs(before.estate()).withOu("works")));
        assertThat(sameContenders(before, moved)).isEmpty();
        Resolver fenced = before.follow(before.estate().withOus(before.estate().ous().all().stream()
                .map(ou -> ou.id().equals("works") ? new Ou("works", "works", ou.dn(), "root", true) : ou).toList()));
        assertThat(sameContenders(before, fenced)).isEmpty();
    }

    @Test
    void aMoveThatChangesNobodysPositionIsStillAMove() {
        Resolver before = warm();
        Estate estate = before.estate();
        Device bench = Objects.requireNonNull(estate.devices().find("d-bench"));
        Estate after = estate.withDevice(bench.withOu("labs"));
        assertThat(after.devices().sameOrderAs(estate.devices())).as("it stood right after the only one there").isFalse();
        Estate stores = estate.withDevice(Objects.requireNonNull(estate.devices().find("d-stores")).withOu("works"));
        assertThat(stores.devices().standAs(estate.devices())).isFalse();
        assertThat(before.follow(stores).audiences().standsAs(before.audiences())).isFalse();
    }

    @Test
    void whoWaitsGoesAlongUntilTheTitleIsPresentElsewhere() {
        Resolver before = warm();
        Title valvewright = title(before, "valvewright");
        Resolver same = reporting(before, "site", "Hartsmere");
        assertThat(same.waitingByTitle().get("valvewright")).isSameAs(before.waiting(valvewright));
        assertThat(before.waiting(valvewright).size()).isEqualTo(3);
        int works = before.estate().devices().position("d-works");
        assertThat(before.waiting(valvewright).contains(works)).as("the last by id").isTrue();
        Device device = Objects.requireNonNull(before.estate().devices().find("d-works"));
        Resolver there = before.follow(before.estate().withDevice(device.withReport(device.facts(), List.of(),
                List.of(Present.of("valvewright", null)))));
        assertThat(there.waitingByTitle()).doesNotContainKey("valvewright");
        assertThat(there.waiting(valvewright).contains(works)).as("present first").isFalse();
    }

    @Test
    void whatIsPresentIsPutRightForTheDevicesThatChanged() {
        for (int i = 0; i < 50; i++) {
            estates.device("e" + i, "labs", Present.of(i % 2 == 0 ? "siltscope" : "mudview", Version.of("1.0")));
        }
        Resolver before = warm();
        Device e4 = Objects.requireNonNull(before.estate().devices().find("e4"));
        Resolver now = before.follow(before.estate().withDevice(e4.withReport(e4.facts(), List.of(),
                List.of(Present.of("siltscope", Version.of("2.0")), Present.of("mudview", null)))));
        assertThat(now.versionsPresent("siltscope")).containsOnly(java.util.Map.entry("1.0", 24), java.util.Map.entry("2.0", 1));
        assertThat(now.versionsPresent("mudview")).containsOnly(java.util.Map.entry("1.0", 25), java.util.Map.entry("", 1));
        Resolver back = now.follow(before.estate());
        assertThat(back.versionsPresent("siltscope")).isEqualTo(before.versionsPresent("siltscope"));
        Resolver moved = now.follow(now.estate().withDevice(Objects.requireNonNull(now.estate().devices().find("e4")).withOu("bench")));
        assertThat(moved.presentAt(title(moved, "mudview")).values().stream().mapToInt(p -> p.size()).sum()).isEqualTo(26);
        assertThat(moved.presentAt(title(moved, "mudview")).values()).anySatisfy(p -> assertThat(p.toArray())
                .containsExactly(moved.estate().devices().position("e4")));
    }

    /** What a collection holds stays the very same set, and yet its base says whether it is inside a fence. */
    @Test
    void aCollectionThatIsBasedElsewhereCrossesAnotherFence() {
        estates.fence("labs").collection("c", "group eq \"crew\"");
        for (String title : TITLES) {
            estates.assignment(estates.next(title, Intent.REQUIRED, Target.collection("c")));
        }
        Resolver before = estates.resolver();
        assertThat(before.all().values()).allSatisfy(outcomes -> assertThat(outcomes.parts()).isEmpty());
        Resolver now = before.follow(before.estate().withCollection(new DeviceCollection("c", "c", "labs",
                "group eq \"crew\"", List.of(), List.of())));
        for (String title : TITLES) {
            assertThat(now.title(title(now, title)).parts()).as(title).hasSize(1);
            assertThat(now.device(labs(now.estate()))).as(title).anySatisfy(o -> assertThat(o.title().id()).isEqualTo(title));
        }
        assertThat(Rehearsal.of(before, now).changed()).hasSize(TITLES.size());
    }
}
