package rivo.core.explain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.core.resolve.Resolver;

class TrailTest {

    private static Trail trail(Estates estates, String device) {
        return trail(estates, device, "siltscope");
    }

    private static Trail trail(Estates estates, String device, String title) {
        Resolver resolver = estates.resolver();
        return Trail.of(resolver, java.util.Objects.requireNonNull(resolver.estate().title(title)),
                resolver.estate().devices().position(device));
    }

    private static List<String> said(Trail trail) {
        return trail.rungs().stream().map(r -> r.assignment().id() + ": " + trail.sentence(r)).toList();
    }

    @Test
    void theNearestDecidesAndTheOthersSayWhyTheyDoNot() {
        Trail trail = trail(Estates.usual().assign(Intent.UNINSTALL, "root").assign(Intent.REQUIRED, "labs")
                .assign(Intent.UNINSTALL, "works"), "d-bench");
        assertThat(said(trail)).containsExactly("a2: nearest OU that assigns this title, 1 level up",
                "a3: does not reach here", "a1: weaker: 2 levels up, the deciding one is nearer");
        assertThat(trail.sentence()).isEqualTo(
                "Required, because the nearest assignment that reaches here, at labs, says so.");
    }

    @Test
    void aFenceIsNamed() {
        Trail trail = trail(Estates.usual().fence("labs").assign(Intent.REQUIRED, "root"), "d-labs");
        assertThat(said(trail)).containsExactly("a1: stopped by the fence at labs; it is not binding");
        assertThat(trail.sentence()).isEqualTo("Nothing: root requires it, but the fence at labs stops that.");
    }

    @Test
    void theChainOfGroupsIsShown() {
        Estates estates = Estates.usual().group("crew", Target.device("d-bench")).group("all-crews", Target.group("crew"));
        Trail trail = trail(estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.group("all-crews"))), "d-bench");
        assertThat(said(trail)).containsExactly(
                "a1: nearest that assigns this title, through the group all-crews, by way of crew");
        assertThat(trail.rungs().get(0).chain()).extracting(g -> g.id()).containsExactly("all-crews", "crew");
    }

    @Test
    void anExclusionSaysWhoExcludes() {
        Estates estates = Estates.usual().group("loans", Target.device("d-labs"));
        Trail trail = trail(estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("labs"))
                .withExclude(List.of(Target.group("loans")))), "d-labs");
        assertThat(trail.sentence()).isEqualTo("Nothing: labs requires it, but that is excluded by the group loans.");
    }

    @Test
    void aRuleShowsEachClauseWithTheFactItSaw() {
        Estates estates = Estates.usual().device(new Device("d-labs", "d-labs", "labs", List.of(),
                Estates.facts("arch", "arm64"), List.of(), List.of()));
        Trail trail = trail(estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("labs"))
                .withWithin("arch eq \"x64\" and ramGiB ge 8")), "d-labs");
        assertThat(said(trail)).containsExactly(
                "a1: narrowed out: arch eq \"x64\", has arm64; ramGiB ge 8, not reported");
        assertThat(trail.clauses(trail.rungs().get(0))).extracting(c -> c.holds()).containsExactly(false, false);
    }

    @Test
    void aClosedWaveAndAnotherBaseAreSaid() {
        Estates estates = Estates.usual();
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("labs"))
                .withWaves(List.of(Wave.share(0, true), Wave.share(100, false))));
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ALL_DEVICES).withBase("works"));
        Trail trail = trail(estates, "d-labs");
        assertThat(said(trail)).contains("a1: later: wave 2 of 2 is not open yet", "a2: has effect only below works");
        assertThat(trail.sentence()).isEqualTo("Later: wave 2 of 2 of a1 is not open yet.");
    }

    @Test
    void whatHasNoSayStandsLast() {
        Estates estates = Estates.usual().assign(Intent.REQUIRED, "labs");
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("root")).retired());
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("root"))
                .withState(rivo.core.estate.AssignmentState.PAUSED));
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("root"))
                .withFrom(Estates.AS_OF.plusSeconds(60)));
        assertThat(said(trail(estates, "d-labs")).subList(1, 4)).containsExactly("a4: starts at 2026-11-23T08:01:00Z",
                "a3: paused", "a2: ended");
    }

    @Test
    void levelOnesThatDisagreeAreContested() {
        Trail trail = trail(Estates.usual().assign(Intent.REQUIRED, "labs").assign(Intent.UNINSTALL, "labs"), "d-labs");
        assertThat(said(trail)).allMatch(line -> line.endsWith("level with an assignment that wants the opposite; left as it is"));
        assertThat(trail.sentence()).startsWith("Contested: 2 level assignments disagree.");
    }

    @Test
    void aRelationNamesTheOtherTitleAndItsWinner() {
        Title successor = Title.of("tidecalc", "Tidecalc", List.of(new Release(Version.of("2.0"), ReleaseState.OFFERED, List.of(),
                List.of(new Replacement("siltscope", Replacement.Mode.IN_PLACE)), List.of(new Variant("v", null)))));
        Estates estates = Estates.usual().title(successor).assign(Intent.REQUIRED, "root");
        Trail trail = trail(estates.assignment(estates.next("tidecalc", Intent.REQUIRED, Target.ou("labs"))), "d-labs");
        assertThat(trail.sentence()).isEqualTo("Replaced: Tidecalc takes its place, required by a2 at labs.");
        assertThat(java.util.Objects.requireNonNull(trail.other()).title().id()).isEqualTo("tidecalc");
    }

    @Test
    void aBlockedTitleSaysWhatItNeeds() {
        Title needing = Title.of("brookmap", "Brookmap", List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED,
                List.of(new Need("siltscope", Version.of("9"))), List.of(), List.of(new Variant("v", null)))));
        Estates estates = Estates.usual().title(needing);
        Trail trail = trail(estates.assignment(estates.next("brookmap", Intent.REQUIRED, Target.ou("labs"))), "d-labs",
                "brookmap");
        assertThat(trail.sentence()).isEqualTo("Blocked: it needs a newer Siltscope Lab than the one chosen.");
    }

    @Test
    void theReleasesSayWhatBecameOfThem() {
        Title title = Title.of("siltscope", "Siltscope Lab", List.of(Estates.release("1.0"),
                new Release(Version.of("3.0"), ReleaseState.WITHDRAWN, List.of(), List.of(), List.of()),
                Release.of(Version.of("2.0"), List.of(new Variant("arm", "arch eq \"arm64\""))), Estates.release("0.9")));
        Trail trail = trail(Estates.usual().title(title).assign(Intent.REQUIRED, "labs"), "d-labs");
        assertThat(trail.releases()).extracting(l -> l.release().version() + " " + l.kind().word()).containsExactly(
                "3.0 withdrawn", "2.0 does-not-fit", "1.0 chosen", "0.9 older");
        assertThat(trail.releases().get(1).variants().get(0).clauses()).singleElement()
                .satisfies(c -> assertThat(c.words()).isEqualTo("arch eq \"arm64\""));
    }

    @Test
    void followingTheUserThePersonIsNamed() {
        Estates estates = Estates.usual().user("imara", "works").user("tobin", "labs");
        estates.device(new Device("d-labs", "d-labs", "labs", List.of("imara", "tobin"), Estates.facts(), List.of(),
                List.of()));
        Trail trail = trail(estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("works"))
                .withFollows(Follows.USER)), "d-labs");
        assertThat(trail.rungs()).singleElement().satisfies(r -> assertThat(r.person()).isEqualTo("imara"));
        assertThat(said(trail)).containsExactly("a1: nearest OU that assigns this title, at the person's OU");
    }

    @Test
    void anOuIsLookedAtForADeviceThatWouldStandInIt() {
        Estates estates = Estates.usual().fence("bench").assign(Intent.REQUIRED, "labs");
        estates.assignment(estates.next("siltscope", Intent.UNINSTALL, Target.device("d-labs")));
        Resolver resolver = estates.resolver();
        Title title = java.util.Objects.requireNonNull(resolver.estate().title("siltscope"));
        Trail labs = Trail.at(resolver, resolver.estate().ous().position("labs"), title);
        assertThat(labs.decision().orElseThrow().outcome().word()).isEqualTo("required");
        Trail bench = Trail.at(resolver, resolver.estate().ous().position("bench"), title);
        assertThat(bench.decision()).isEmpty();
        assertThat(bench.sentence()).isEqualTo("Nothing: labs requires it, but the fence at bench stops that.");
    }
}
