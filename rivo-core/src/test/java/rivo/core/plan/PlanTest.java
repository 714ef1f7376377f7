package rivo.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.resolve.Resolver;

class PlanTest {

    private static Title title(String id, List<String> needs, List<Replacement> replaces) {
        return Title.of(id, id, List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED,
                needs.stream().map(n -> new Need(n, null)).toList(), replaces, List.of(new Variant("v", null)))));
    }

    private static Title plain(String id) {
        return title(id, List.of(), List.of());
    }

    private static List<String> plan(Estates estates) {
        Estate estate = estates.estate();
        return Plan.of(Resolver.of(estate), Objects.requireNonNull(estate.devices().find("d-labs"))).actions().stream()
                .map(a -> a.kind() + " " + a.title() + ": " + a.why()).toList();
    }

    private static Estates require(Estates estates, String... titles) {
        Arrays.stream(titles).forEach(t -> estates.assignment(estates.next(t, Intent.REQUIRED, Target.ou("labs"))));
        return estates;
    }

    @Test
    void whatComesOffGoesBeforeWhatGoesOn() {
        Estates estates = Estates.usual().assign(Intent.REQUIRED, "labs");
        estates.assignment(estates.next("mudview", Intent.UNINSTALL, Target.ou("labs")));
        assertThat(plan(estates)).containsExactly("REMOVE mudview: before anything goes on",
                "INSTALL siltscope: after what comes off, in the order of publishing");
    }

    @Test
    void aNeedGoesBeforeWhatNeedsIt() {
        Estates estates = Estates.usual().title(plain("graphkit")).title(title("tidecalc", List.of("graphkit"), List.of()))
                .title(title("weirview", List.of("tidecalc"), List.of()));
        assertThat(plan(require(estates, "weirview", "siltscope"))).containsExactly(
                "INSTALL graphkit: before tidecalc, which needs it", "INSTALL tidecalc: before weirview, which needs it",
                "INSTALL weirview: after what comes off, in the order of publishing",
                "INSTALL siltscope: after what comes off, in the order of publishing");
    }

    @Test
    void whatIsReplacedIsTakenOffBeforeUnlessTheInstallerDoesIt() {
        Replacement first = new Replacement("mudview", Replacement.Mode.REMOVE_FIRST);
        Replacement inPlace = new Replacement("mudview", Replacement.Mode.IN_PLACE);
        Present mudview = Present.of("mudview", null);
        Estates before = Estates.usual().device("d-labs", "labs", mudview).title(title("tidecalc", List.of(), List.of(first)));
        assertThat(plan(require(before, "tidecalc"))).first().isEqualTo(
                "REMOVE mudview: before tidecalc, which takes its place");
        Estates within = Estates.usual().device("d-labs", "labs", mudview)
                .title(title("tidecalc", List.of(), List.of(inPlace)));
        assertThat(plan(require(within, "tidecalc"))).singleElement().asString().startsWith("INSTALL tidecalc");
    }

    @Test
    void whatStandsInTheWayIsTakenOffIfItIsThere() {
        Title against = new Title("tidecalc", "tidecalc", rivo.core.estate.Scope.DEVICE, null, List.of("mudview"),
                plain("x").releases());
        assertThat(plan(require(Estates.usual().device("d-labs", "labs", Present.of("mudview", null)).title(against),
                "tidecalc"))).first().isEqualTo("REMOVE mudview: before tidecalc, in whose way it is");
        assertThat(plan(require(Estates.usual().title(against), "tidecalc"))).hasSize(1);
    }

    @Test
    void aKitKeepsItsOrder() {
        Estates estates = Estates.usual().title(plain("b")).title(plain("a")).kit("k", "b", "siltscope", "a");
        estates.assignment(Assignment.of("a1", 1, Subject.kit("k"), Intent.REQUIRED, List.of(Target.ou("labs"))));
        assertThat(plan(estates)).containsExactly("INSTALL b: in the order of the kit k",
                "INSTALL siltscope: in the order of the kit k", "INSTALL a: in the order of the kit k");
    }

    @Test
    void theRestGoesByDeadline() {
        Estates estates = require(Estates.usual(), "siltscope", "mudview");
        Estate estate = estates.estate();
        Plan plan = Plan.of(Resolver.of(estate), Objects.requireNonNull(estate.devices().find("d-labs")),
                a -> a.id().equals("a2") ? Instant.parse("2026-11-24T17:00:00Z") : null);
        assertThat(plan.actions()).extracting(Action::title).containsExactly("mudview", "siltscope");
        assertThat(plan.actions().get(0).why()).isEqualTo("by its deadline, 2026-11-24T17:00:00Z");
    }

    @Test
    void aTitleIsTakenOffBeforeTheOneItNeeds() {
        Estates estates = Estates.usual().title(plain("graphkit")).title(title("tidecalc", List.of("graphkit"), List.of()));
        for (String id : List.of("graphkit", "tidecalc")) {
            estates.assignment(estates.next(id, Intent.UNINSTALL, Target.ou("labs")));
        }
        assertThat(plan(estates)).containsExactly("REMOVE tidecalc: before anything goes on",
                "REMOVE graphkit: before anything goes on");
    }
}
