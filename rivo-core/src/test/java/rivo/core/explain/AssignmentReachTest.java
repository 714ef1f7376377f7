package rivo.core.explain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.RandomEstates;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Wave;
import rivo.core.resolve.Resolver;

/** Whom an assignment means, against the trails of each unit by itself. */
class AssignmentReachTest {

    private static final int ESTATES = 200;
    private static final Set<Verdict.Kind> CANDIDATE = EnumSet.of(Verdict.Kind.DECIDES, Verdict.Kind.AGREES, Verdict.Kind.DISAGREES, Verdict.Kind.WEAKER,
            Verdict.Kind.LATER);

    private static final Set<Verdict.Kind> NO_TARGET = EnumSet.of(Verdict.Kind.NO_REACH, Verdict.Kind.RESTS);

    @Test
    void itSaysOfEveryUnitWhatItsTrailSays() {
        int looked = 0;
        for (long seed = 0; seed < ESTATES; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (Title title : resolver.estate().titles()) {
                for (Assignment assignment : resolver.estate().assignments().of(title.id())) {
                    if (assignment.isLive(resolver.estate().asOf())) {
                        looked += check(resolver, title, assignment, "seed " + seed + ", " + assignment.id() + " of " + title.id());
                    }
                }
            }
        }
        assertThat(looked).as("units that something keeps out").isGreaterThan(300);
    }

    /** How many it looked at that something keeps out. */
    private static int check(Resolver resolver, Title title, Assignment assignment, String what) {
        AssignmentReach reach = AssignmentReach.of(resolver, assignment, title.scope());
        int out = 0;
        for (int unit = 0; unit < resolver.audiences().size(title.scope()); unit++) {
            int at = unit;
            List<Verdict> said = Trail.of(resolver, title, unit).rungs().stream().filter(rung -> rung.assignment().equals(assignment))
                    .map(Rung::verdict).toList();
            boolean served = said.stream().anyMatch(verdict -> CANDIDATE.contains(verdict.kind()));
            assertThat(reach.served().contains(unit)).as("%s at %d: %s", what, unit, said).isEqualTo(served);
            List<AssignmentReach.LeftOut> keeps = reach.leftOut().stream().filter(one -> one.units().contains(at)).toList();
            boolean reachedOnly = !served && said.stream().anyMatch(verdict -> !NO_TARGET.contains(verdict.kind()));
            if (reachedOnly) {
                out++;
                assertThat(keeps).as("%s at %d: %s", what, unit, said).hasSize(1);
                assertThat(said.stream().map(Verdict::kind)).as(what).contains(keeps.get(0).by().kind());
                assertThat(reach.reached().contains(unit)).as(what).isTrue();
            } else {
                assertThat(keeps.stream().filter(one -> one.by().kind() != Verdict.Kind.RESTS)).as("%s at %d: %s", what, unit, said).isEmpty();
            }
        }
        if (!assignment.waves().isEmpty()) {
            assertThat(reach.waves().stream().mapToInt(UnitSet::size).sum()).as(what).isEqualTo(reach.served().size());
            assertThat(UnitSet.union(title.scope(), reach.waves()).and(reach.served()).size()).as(what).isEqualTo(reach.served().size());
            assertThat(reach.waves()).as(what).hasSameSizeAs(assignment.waves());
        } else {
            assertThat(reach.waves()).as(what).isEmpty();
        }
        return out;
    }

    private static AssignmentReach reach(Estates estates, Assignment assignment) {
        Resolver resolver = estates.assignment(assignment).resolver();
        return AssignmentReach.of(resolver, assignment, Scope.DEVICE);
    }

    private static List<String> words(AssignmentReach reach) {
        List<String> words = new ArrayList<>();
        reach.leftOut().forEach(one -> words.add(one.by().kind() + " " + one.units().size()));
        return words;
    }

    @Test
    void eachIsKeptOutByTheFirstThingThatDoes() {
        Estates estates = Estates.usual().fence("bench").group("loans", Target.device("d-labs"), Target.device("d-bench"));
        Assignment assignment = estates.next("siltscope", Intent.REQUIRED, Target.ou("labs")).withExclude(List.of(Target.group("loans")));
        AssignmentReach reach = reach(estates, assignment);
        assertThat(words(reach)).as("the fence would stop one that is excluded already").containsExactly("EXCLUDED 2");
        assertThat(reach.served().size()).as("d-stores").isEqualTo(1);
        assertThat(reach.reached().size()).isEqualTo(3);
    }

    @Test
    void aFenceIsNamedAndTheOutermostCounts() {
        Estates estates = Estates.usual().fence("labs").fence("bench");
        AssignmentReach reach = reach(estates, estates.next("siltscope", Intent.REQUIRED, Target.ou("root")));
        assertThat(reach.leftOut()).hasSize(1);
        assertThat(Objects.requireNonNull(reach.leftOut().get(0).by().fence()).id()).isEqualTo("labs");
    }

    @Test
    void whatFollowsPeopleCountsTheirDevicesOnce() {
        Estates estates = Estates.usual().user("u1", "labs").user("u2", "labs")
                .device(new Device("d-shared", "d-shared", "labs", List.of("u1", "u2"), Estates.facts(), List.of(), List.of()))
                .group("crew", Target.user("u1"), Target.user("u2"));
        Assignment assignment = estates.next("siltscope", Intent.REQUIRED, Target.group("crew")).withFollows(Follows.USER)
                .withWaves(List.of(Wave.to(List.of(Target.user("u2")), true), Wave.share(0, false)));
        AssignmentReach reach = reach(estates, assignment);
        assertThat(reach.served().size()).isEqualTo(1);
        assertThat(reach.waves().stream().map(UnitSet::size)).as("in the first wave that takes it through any of its people").containsExactly(1, 0);
        assertThat(reach.devices(estates.resolver().audiences()).size()).isEqualTo(1);
    }

    @Test
    void whoeverNoWaveTakesIsInTheLast() {
        Estates estates = Estates.usual();
        AssignmentReach reach = reach(estates, estates.next("siltscope", Intent.REQUIRED, Target.ou("labs"))
                .withWaves(List.of(Wave.to(List.of(Target.device("d-labs")), true), Wave.share(0, false))));
        assertThat(reach.waves().stream().map(UnitSet::size)).containsExactly(1, 2);
    }
}
