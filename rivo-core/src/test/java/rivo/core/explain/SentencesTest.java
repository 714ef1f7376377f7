package rivo.core.explain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Leaving;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.core.resolve.Resolver;

/** Each outcome and each reason in one sentence. */
class SentencesTest {

    private final Estates estates = Estates.usual();

    private String sentence(String title) {
        return sentence(estates.estate(), title);
    }

    private static String sentence(Estate estate, String title) {
        Resolver resolver = Resolver.of(estate);
        return Trail.of(resolver, Objects.requireNonNull(estate.title(title)), estate.devices().position("d-labs")).sentence();
    }

    private void assign(String title, Intent intent, Target... include) {
        estates.assignment(estates.next(title, intent, include));
    }

    private static Title needing(String id, Scope scope, String need) {
        return new Title(id, "", scope, null, List.of(), List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED,
                List.of(new Need(need, null)), List.of(), List.of(new Variant("v", null)))));
    }

    private static Title only(String id, String fits) {
        return Title.of(id, "", List.of(Release.of(Version.of("2.0"), List.of(new Variant("x64", fits)))));
    }

    /** What the device needs brookmap for, which is put on it. */
    private String blockedBy(String need) {
        estates.title(needing("brookmap", Scope.DEVICE, need));
        assign("brookmap", Intent.REQUIRED, Target.ou("labs"));
        return sentence("brookmap");
    }

    @Test
    void anOfferIsOfferedAndOneThatWasTakenIsRequired() {
        estates.assign(Intent.AVAILABLE, "labs");
        assertThat(sentence("siltscope")).isEqualTo(
                "Offered, because the nearest assignment that reaches here, at labs, says so.");
        assertThat(sentence(estates.estate().withRequests(List.of(new Request("d-labs", "siltscope", null))), "siltscope"))
                .isEqualTo("Required, because it was asked for: it is offered, since the nearest assignment that reaches "
                        + "here, at labs, says so.");
    }

    @Test
    void aBindingOneSaysThatItIs() {
        estates.assignment(estates.next("siltscope", Intent.UNINSTALL, Target.ALL_DEVICES).withBinding(true));
        assertThat(sentence("siltscope")).isEqualTo("Removed, because a binding assignment for all devices says so.");
    }

    @Test
    void whatIsLeftBehindNamesWhoPutItOn() {
        estates.device("d-labs", "labs", new Present("siltscope", null, null, "a1"));
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("works")).withLeaving(Leaving.REMOVE));
        assertThat(sentence("siltscope")).isEqualTo(
                "Removed, because a1 put it on, no longer reaches here, and removes what it leaves.");
    }

    @Test
    void whatDoesNotFitSaysWhatItNeedsAndWhatIsThere() {
        estates.title(only("siltscope", "os.version ge \"10.0.26200\" and arch eq \"x64\"")).assign(Intent.REQUIRED, "labs")
                .device(new Device("d-labs", "", "labs", List.of(), Estates.facts("os.version", "10.0.26100"), List.of(),
                        List.of()));
        assertThat(sentence("siltscope")).isEqualTo("Does not fit: 2.0 needs os.version ge \"10.0.26200\", has 10.0.26100; "
                + "arch eq \"x64\", not reported.");
    }

    @Test
    void eachVariantThatDoesNotFitHasItsSay() {
        estates.title(Title.of("siltscope", "", List.of(Release.of(Version.of("2.0"), List.of(
                new Variant("x64", "arch eq \"x64\""), new Variant("large", "ramGiB ge 64")))))).assign(Intent.REQUIRED, "labs");
        assertThat(sentence("siltscope")).isEqualTo(
                "Does not fit: 2.0 needs arch eq \"x64\", not reported; or ramGiB ge 64, not reported.");
    }

    @Test
    void whereNothingIsOfferedNothingFits() {
        estates.title(Title.of("siltscope", "Siltscope Lab", List.of())).assign(Intent.REQUIRED, "labs");
        assertThat(sentence("siltscope")).isEqualTo(
                "Does not fit: no release of Siltscope Lab is offered that fits this device.");
    }

    @Test
    void aPinnedReleaseThatIsNotThereIsNamed() {
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("labs")).withPin(Version.of("9.9")));
        assertThat(sentence("siltscope")).isEqualTo("Blocked: the release 9.9 that it is held to is not offered.");
    }

    @Test
    void whoWaitsForASeatLearnsHowManyThereAre() {
        estates.title(new Title("siltscope", "Siltscope Lab", Scope.DEVICE, 0, List.of(), List.of(Estates.release("1.0"))))
                .assign(Intent.REQUIRED, "labs");
        assertThat(sentence("siltscope")).isEqualTo("Waiting for a seat: all 0 of Siltscope Lab are in use, though the "
                + "nearest assignment that reaches here, at labs, says so.");
    }

    @Test
    void whatIsPulledInNamesWhoNeedsIt() {
        estates.title(needing("brookmap", Scope.DEVICE, "siltscope"));
        assign("brookmap", Intent.REQUIRED, Target.ou("labs"));
        assertThat(sentence("siltscope")).isEqualTo("Required, because brookmap needs it.");
    }

    @Test
    void whatIsKeptOffNamesWhatStandsAgainstItAndWhoAskedForThat() {
        estates.title(new Title("mudview", "Mudview", Scope.DEVICE, null, List.of("siltscope"), List.of(Estates.release("1.0"))));
        assign("mudview", Intent.REQUIRED, Target.device("d-labs"));
        estates.assign(Intent.REQUIRED, "root");
        assertThat(sentence("siltscope")).isEqualTo("Kept off: Mudview conflicts with it, required by a1 for d-labs.");
    }

    @Test
    void aNeedThatIsToBeRemovedBlocks() {
        assign("siltscope", Intent.UNINSTALL, Target.ou("labs"));
        assertThat(blockedBy("siltscope")).isEqualTo("Blocked: it needs Siltscope Lab, which is to be removed.");
    }

    @Test
    void aNeedThatIsContestedBlocks() {
        estates.assign(Intent.UNINSTALL, "labs").assign(Intent.REQUIRED, "labs");
        assertThat(blockedBy("siltscope")).isEqualTo("Blocked: it needs Siltscope Lab, which is contested.");
    }

    @Test
    void aNeedThatComesLaterBlocks() {
        estates.assignment(estates.next("siltscope", Intent.REQUIRED, Target.ou("labs"))
                .withWaves(List.of(Wave.share(100, false))));
        assertThat(blockedBy("siltscope")).isEqualTo("Blocked: it needs Siltscope Lab, whose wave is not open yet.");
    }

    @Test
    void aNeedThatDoesNotFitBlocks() {
        estates.title(only("tidecalc", "arch eq \"x64\""));
        assertThat(blockedBy("tidecalc")).isEqualTo("Blocked: it needs tidecalc, of which no release fits this device.");
    }

    @Test
    void aNeedWithoutASeatBlocks() {
        estates.title(new Title("tidecalc", "Tidecalc", Scope.DEVICE, 5, List.of(), List.of(Estates.release("1.0"))));
        assertThat(blockedBy("tidecalc")).isEqualTo("Blocked: it needs Tidecalc, which has no seat here.");
    }

    @Test
    void aNeedThatIsKeptOffBlocks() {
        estates.title(new Title("mudview", "Mudview", Scope.DEVICE, null, List.of("siltscope"), List.of(Estates.release("1.0"))));
        assign("mudview", Intent.REQUIRED, Target.device("d-labs"));
        assertThat(blockedBy("siltscope")).isEqualTo("Blocked: it needs Siltscope Lab, which is kept off.");
    }

    @Test
    void aNeedOfTheDeviceThatItIsNotToHaveBlocks() {
        estates.user("imara", "works").device(new Device("d-labs", "", "labs", List.of("imara"), Estates.facts(), List.of(),
                List.of())).title(needing("notes", Scope.USER, "siltscope"));
        estates.assignment(estates.next("notes", Intent.REQUIRED, Target.user("imara")).withFollows(Follows.USER));
        Resolver resolver = estates.resolver();
        Title notes = Objects.requireNonNull(resolver.estate().title("notes"));
        assertThat(Trail.of(resolver, notes, 0).sentence()).isEqualTo(
                "Blocked: it needs Siltscope Lab on the device, which does not get it.");
    }

    @Test
    void whyNotSaysThatNobodyReachesHere() {
        estates.assign(Intent.REQUIRED, "works");
        assertThat(sentence("siltscope")).isEqualTo("Nothing: no assignment of Siltscope Lab reaches here.");
        assertThat(sentence("mudview")).isEqualTo("Nothing: no assignment of Mudview reaches here.");
    }
}
