package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.rule.Rule;

/** What another instant makes different, and what it leaves as it is (section 11 of the resolution rules). */
class TicksTest {

    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");
    private static final String LATELY = "lastSeen gt \"-P14D\"";
    private static final String LARGE = "ramGiB ge 8";

    private static Device device(String id, String lastSeen) {
        return new Device(id, id, "root", List.of(), Estates.facts("lastSeen", lastSeen, "ramGiB", "16"), List.of(), List.of());
    }

    private static Resolver resolver() {
        Title lab = new Title("lab", "Siltscope Lab", Scope.DEVICE, 1, List.of(), List.of(Estates.release("1.0")));
        Title maps = Title.of("maps", "Brookmap", List.of(Estates.release("1.0")));
        return Resolver.of(Estate.of(EstateParts.none(NOW).withOus(List.of(new Ou("root", "Root", "", null, false)))
                .withDevices(List.of(device("d1", "2026-11-22T08:00:00Z"), device("d2", "2026-11-10T08:00:00Z")))
                .withTitles(List.of(lab, maps))
                .withCollections(List.of(new DeviceCollection("lately", "Lately", null, LATELY, List.of(), List.of()),
                        new DeviceCollection("chain", "Chain", null, "collection eq \"Lately\"", List.of(), List.of()),
                        new DeviceCollection("large", "Large", null, LARGE, List.of(), List.of())))
                .withAssignments(List.of(Assignment.of("a1", 1, Subject.title("lab"), Intent.REQUIRED, List.of(Target.collection("chain"))),
                        Assignment.of("a2", 2, Subject.title("maps"), Intent.REQUIRED, List.of(Target.collection("large")))
                                .withFrom(NOW.plus(1, ChronoUnit.DAYS))))));
    }

    private static String rows(Resolver resolver) {
        return resolver.estate().devices().all().stream().map(d -> d.id() + resolver.device(d).stream().map(o -> o.title().id()).toList()).toList()
                .toString();
    }

    @Test
    void periodsMoveAndWhatIsToStartStarts() {
        Resolver before = resolver();
        assertThat(rows(before)).isEqualTo("[d1[lab], d2[lab]]");
        Resolver started = before.follow(before.estate().at(NOW.plus(1, ChronoUnit.DAYS)));
        assertThat(rows(started)).as("from its very instant").isEqualTo("[d1[lab, maps], d2[maps]]");
        assertThat(rows(started.follow(before.estate().at(NOW.plus(1, ChronoUnit.DAYS).minusNanos(1000))))).isEqualTo("[d1[lab], d2[lab]]");
        assertThat(rows(started.follow(before.estate().at(NOW.plus(40, ChronoUnit.DAYS))))).isEqualTo("[d1[maps], d2[maps]]");
    }

    /** Whoever asks after such a tick finds all that was found out before. */
    @Test
    void aTickThatChangesNothingKeepsEverything() {
        Resolver before = resolver();
        rows(before);
        before.audiences().satisfying(LATELY, Scope.DEVICE);
        before.audiences().satisfying(LARGE, Scope.DEVICE);
        Resolver after = before.follow(before.estate().at(NOW.plusSeconds(60)));
        assertThat(after.pairsByTarget()).isSameAs(before.pairsByTarget());
        for (Title title : before.estate().titles()) {
            assertThat(after.rankedPairs(title)).as(title.id()).isSameAs(before.rankedPairs(title));
        }
        for (String rule : List.of(LATELY, LARGE)) {
            assertThat(after.audiences().satisfying(rule, Scope.DEVICE)).as(rule).isSameAs(before.audiences().satisfying(rule, Scope.DEVICE));
        }
    }

    @Test
    void whatLooksAtNoInstantIsTheVerySameAfterATickThatChangesSomething() {
        Resolver before = resolver();
        rows(before);
        before.audiences().satisfying(LATELY, Scope.DEVICE);
        before.audiences().satisfying(LARGE, Scope.DEVICE);
        Resolver after = before.follow(before.estate().at(NOW.plus(3, ChronoUnit.DAYS)));
        assertThat(after.audiences().satisfying(LARGE, Scope.DEVICE)).isSameAs(before.audiences().satisfying(LARGE, Scope.DEVICE));
        assertThat(after.audiences().satisfying(LATELY, Scope.DEVICE).size()).isEqualTo(1);
        assertThat(rows(after)).isEqualTo("[d1[lab, maps], d2[maps]]");
    }

    /** So nobody who asks about a device after a tick waits longer than before it. */
    @Test
    void aTickThatChangesSomethingCatchesUpWithWhatWasKnown() {
        Resolver before = resolver();
        rows(before);
        Title lab = Objects.requireNonNull(before.estate().title("lab"));
        assertThat(before.waiting(lab).size()).as("both need one, and there is one").isEqualTo(1);
        Resolver after = before.follow(before.estate().at(NOW.plus(3, ChronoUnit.DAYS)));
        assertThat(after.rankedPairs(lab)).isNotSameAs(before.rankedPairs(lab));
        assertThat(after.rankedPairs(lab).live()).noneMatch(ranked -> ranked.pair().hasLooked());
        after.catchUpWith(before);
        assertThat(after.rankedPairs(lab).live()).allMatch(ranked -> ranked.pair().hasLooked());
        assertThat(after.waitingByTitle()).containsKey("lab");
        // Whoever comes after it keeps the row of pairs that it knows.
        PairsByTarget kept = after.follow(after.estate().at(NOW.plus(3, ChronoUnit.DAYS).plusSeconds(60))).pairsByTarget();
        assertThat(after.pairsByTarget()).isSameAs(kept);
        assertThat(rows(after)).isEqualTo("[d1[lab, maps], d2[maps]]");
    }

    @Test
    void whatNobodyHasAskedIsNotCaughtUpWith() {
        Resolver before = resolver();
        Resolver after = before.follow(before.estate().at(NOW.plus(3, ChronoUnit.DAYS)));
        after.catchUpWith(before);
        before.estate().titles().forEach(title -> assertThat(after.rankedPairs(title).live()).as(title.id())
                .noneMatch(ranked -> ranked.pair().hasLooked()));
        assertThat(after.waitingByTitle()).isEmpty();
    }

    @Test
    void aRuleLooksAtTheInstantWhereverItNamesAPeriod() {
        for (String rule : List.of(LATELY, "not (" + LATELY + ")", "arch pr and " + LATELY, "arch pr or (ramGiB ge 8 and enrolled lt \"-PT1H\")",
                "lastSeen ne \"-P1D\"")) {
            assertThat(Rule.parse(rule).looksAtTime()).as(rule).isTrue();
        }
        for (String rule : List.of(LARGE, "lastSeen gt \"2026-11-22T08:00:00Z\"", "software[name eq \"x\"] or lastSeen pr", "collection eq \"Lately\"",
                "software pr")) {
            assertThat(Rule.parse(rule).looksAtTime()).as(rule).isFalse();
        }
    }
}
