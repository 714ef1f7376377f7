package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.core.estate.Intent.AVAILABLE;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.Rows;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Follows;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;

/** One rule a test, as people would say it; the model and the cases hold the whole. */
class ResolverTest {

    private static String outcome(Estates estates, String device) {
        return outcome(estates, device, "siltscope");
    }

    private static String outcome(Estates estates, String device, String title) {
        Resolver resolver = estates.resolver();
        Decision decision = resolver.at(Objects.requireNonNull(resolver.estate().title(title)),
                resolver.estate().devices().position(device));
        return decision == null ? "nothing" : Rows.words(decision).replaceAll(",+$", "");
    }

    private static Estates with(Estates estates, Assignment assignment) {
        return estates.assignment(assignment);
    }

    @Test
    void anAssignmentReachesItsOuAndAllBelow() {
        Estates estates = Estates.usual().assign(REQUIRED, "labs");
        assertThat(outcome(estates, "d-labs")).isEqualTo("required,4.2.0,x64,a1,assigned");
        assertThat(outcome(estates, "d-bench")).startsWith("required");
        assertThat(outcome(estates, "d-works")).isEqualTo("nothing");
    }

    @Test
    void nearBeatsFar() {
        Estates estates = Estates.usual().assign(REQUIRED, "root").assign(UNINSTALL, "labs");
        assertThat(outcome(estates, "d-bench")).isEqualTo("uninstall,,,a2,assigned");
        assertThat(outcome(estates, "d-works")).startsWith("required");
    }

    @Test
    void amongBindingOnesFarBeatsNear() {
        Estates estates = Estates.usual();
        with(estates, estates.next("siltscope", UNINSTALL, Target.ou("labs")).withBinding(true));
        with(estates, estates.next("siltscope", REQUIRED, Target.ou("root")).withBinding(true));
        with(estates, estates.next("siltscope", UNINSTALL, Target.device("d-labs")));
        assertThat(outcome(estates, "d-labs")).startsWith("required").contains("a2");
    }

    @Test
    void aNameBeatsAListAndAListBeatsAnOu() {
        Estates estates = Estates.usual().group("crew", Target.device("d-labs"), Target.device("d-bench"))
                .assign(REQUIRED, "bench");
        with(estates, estates.next("siltscope", UNINSTALL, Target.group("crew")));
        with(estates, estates.next("siltscope", AVAILABLE, Target.device("d-labs")));
        assertThat(outcome(estates, "d-bench")).startsWith("uninstall");
        assertThat(outcome(estates, "d-labs")).startsWith("available");
    }

    @Test
    void thePriorityDecidesBetweenEquallyNearOnes() {
        Estates estates = Estates.usual().assign(REQUIRED, "labs");
        with(estates, estates.next("siltscope", UNINSTALL, Target.ou("labs")).withPriority(501));
        assertThat(outcome(estates, "d-labs")).startsWith("uninstall");
    }

    @Test
    void levelOnesThatDisagreeAreContestedWhateverElseTheySay() {
        Estates estates = Estates.usual().assign(AVAILABLE, "labs").assign(UNINSTALL, "labs").assign(REQUIRED, "labs");
        assertThat(outcome(estates, "d-bench")).isEqualTo("contested,,,a1;a2;a3");
    }

    @Test
    void ofLevelOnesThatAgreeRequiredWinsAndThenTheOldest() {
        assertThat(outcome(Estates.usual().assign(AVAILABLE, "labs").assign(REQUIRED, "labs").assign(REQUIRED, "labs"),
                "d-labs")).isEqualTo("required,4.2.0,x64,a2,assigned");
    }

    @Test
    void aFenceTakesNothingFromOutsideButWhatBindsOrNames() {
        Estates estates = Estates.usual().fence("labs").assign(REQUIRED, "root");
        assertThat(outcome(estates, "d-bench")).isEqualTo("nothing");
        with(estates, estates.next("siltscope", AVAILABLE, Target.device("d-bench")));
        assertThat(outcome(estates, "d-bench")).startsWith("available");
        with(estates, estates.next("siltscope", UNINSTALL, Target.ou("root")).withBinding(true));
        assertThat(outcome(estates, "d-bench")).startsWith("uninstall");
    }

    @Test
    void aClosedWaveLeavesTheDecisionToWeakerOnes() {
        Estates estates = Estates.usual().assign(AVAILABLE, "root");
        with(estates, estates.next("siltscope", REQUIRED, Target.ou("labs")).withWaves(List.of(
                Wave.to(List.of(Target.device("d-bench")), true), Wave.share(100, false))));
        assertThat(outcome(estates, "d-bench")).startsWith("required");
        assertThat(outcome(estates, "d-labs")).startsWith("available");
    }

    @Test
    void aReleaseIsTakenFromTheNewestDown() {
        Title title = Title.of("siltscope", "Siltscope", List.of(Estates.release("1.0"),
                new Release(Version.of("3.0"), ReleaseState.WITHDRAWN, List.of(), List.of(), List.of(new Variant("v", null))),
                Release.of(Version.of("2.0"), List.of(new Variant("arm", "arch eq \"arm64\"")))));
        Estates estates = Estates.usual().title(title).assign(REQUIRED, "root").device(new Device("d-labs", "", "labs",
                List.of(), Estates.facts("arch", "arm64"), List.of(), List.of()));
        assertThat(outcome(estates, "d-labs")).startsWith("required,2.0,arm");
        assertThat(outcome(estates, "d-works")).startsWith("required,1.0,x64");
    }

    @Test
    void aPinThatIsNotOfferedBlocks() {
        Estates estates = Estates.usual();
        with(estates, estates.next("siltscope", REQUIRED, Target.ou("labs")).withPin(Version.of("9.9")));
        assertThat(outcome(estates, "d-labs")).isEqualTo("blocked,,,a1,no-release");
    }

    @Test
    void seatsGoToWhereItIsPresentAndThenByDevice() {
        Title title = new Title("siltscope", "Siltscope", Scope.DEVICE, 2, List.of(), List.of(Estates.release("1.0")));
        Estates estates = Estates.usual().title(title).device("d-works", "works", Present.of("siltscope", null))
                .assign(REQUIRED, "root");
        assertThat(outcome(estates, "d-works")).startsWith("required");
        assertThat(outcome(estates, "d-bench")).startsWith("required");
        assertThat(outcome(estates, "d-labs")).isEqualTo("waiting,1.0,x64,a1,assigned");
    }

    private static Title related(String id, List<Need> needs, String... replaces) {
        List<Replacement> replacements = new ArrayList<>();
        for (String other : replaces) {
            replacements.add(new Replacement(other, Replacement.Mode.REMOVE_FIRST));
        }
        return Title.of(id, id, List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED, needs, replacements,
                List.of(new Variant("v", null)))));
    }

    @Test
    void aNeedIsPulledInAndSaysByWhom() {
        Estates estates = Estates.usual().title(related("tidecalc", List.of(new Need("mudview", null))));
        with(estates, estates.next("tidecalc", REQUIRED, Target.ou("labs")));
        assertThat(outcome(estates, "d-labs", "mudview")).isEqualTo("required,1.0,x64,,implied,tidecalc");
    }

    @Test
    void aNeedThatIsToBeRemovedBlocks() {
        Estates estates = Estates.usual().title(related("tidecalc", List.of(new Need("mudview", null))));
        with(estates, estates.next("tidecalc", REQUIRED, Target.ou("labs")));
        with(estates, estates.next("mudview", UNINSTALL, Target.ou("root")));
        assertThat(outcome(estates, "d-labs", "tidecalc")).isEqualTo("blocked,,,a1,needs-removed,mudview");
    }

    @Test
    void whatIsPresentAndReplacedGivesWay() {
        Estates estates = Estates.usual().title(related("tidecalc", List.of(), "mudview"))
                .device("d-labs", "labs", Present.of("mudview", null));
        with(estates, estates.next("tidecalc", REQUIRED, Target.ou("labs")));
        assertThat(outcome(estates, "d-labs", "mudview")).isEqualTo("replaced,,,,,tidecalc");
        assertThat(outcome(estates, "d-bench", "mudview")).as("where it is not present there is nothing to say")
                .isEqualTo("nothing");
    }

    @Test
    void aPersonsTitleHasAUnitForEachPerson() {
        Title personal = new Title("brookmap", "Brookmap", Scope.USER, null, List.of(), List.of(Estates.release("1.0")));
        Estates estates = Estates.usual().title(personal).user("imara", "labs").user("tobin", "works")
                .device(new Device("d-labs", "", "labs", List.of("tobin", "imara"), Facts.NONE, List.of(), List.of()));
        with(estates, Assignment.of("a1", 1, Subject.title("brookmap"), AVAILABLE, List.of(Target.ou("works")))
                .withFollows(Follows.USER));
        Resolver resolver = estates.resolver();
        assertThat(resolver.device(Objects.requireNonNull(resolver.estate().devices().find("d-labs"))))
                .extracting(o -> o.user() + " " + o.decision().outcome().word()).containsExactly("tobin available");
        assertThat(resolver.audiences().size(Scope.USER)).isEqualTo(2);
    }
}
