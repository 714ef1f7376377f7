package rivo.core.explain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.RandomEstates;
import rivo.core.Rows;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;

/** What holds for every trail, on random estates. */
class TrailLawsTest {

    private static final int ESTATES = 300;

    @Test
    void aTrailNeverDisagreesWithTheOutcome() {
        for (long seed = 0; seed < ESTATES; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (Title title : resolver.estate().titles()) {
                for (int unit = 0; unit < resolver.audiences().size(title.scope()); unit++) {
                    check(Trail.of(resolver, title, unit), "seed " + seed + ", " + title.id() + " at " + unit);
                }
            }
        }
    }

    private static void check(Trail trail, String what) {
        Decision decision = trail.decision().orElse(null);
        assertThat(trail.sentence()).as(what).endsWith(".").doesNotContain("null");
        assertThat(trail.rungs()).as(what).allSatisfy(rung -> assertThat(trail.sentence(rung)).isNotEmpty());
        long candidates = trail.rungs().stream().filter(r -> switch (r.verdict().kind()) {
            case DECIDES, AGREES, DISAGREES, WEAKER -> true;
            default -> false;
        }).count();
        boolean later = trail.rungs().stream().anyMatch(r -> r.verdict().kind() == Verdict.Kind.LATER);
        if (decision == null || decision.deciding().isEmpty()) {
            assertThat(candidates).as(what).isZero();
            assertThat(later).as(what).isFalse();
            return;
        }
        if (decision.outcome() == Outcome.UNINSTALL && decision.reason() == Reason.LEFT) {
            return;
        }
        assertThat(candidates > 0 || later).as(what).isTrue();
        Set<Assignment> deciding = new HashSet<>();
        trail.rungs().stream().filter(r -> r.verdict().kind() == Verdict.Kind.DECIDES
                || r.verdict().kind() == Verdict.Kind.DISAGREES
                || r.verdict() instanceof Verdict.Later l && l.decides()).forEach(r -> deciding.add(r.assignment()));
        assertThat(deciding).as(what).containsExactlyInAnyOrderElementsOf(decision.deciding());
    }

    @Test
    void theTrailsOfADeviceAreThoseOfItsUnitsOneByOne() {
        for (long seed = 0; seed < ESTATES / 2; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (Device device : resolver.estate().devices().all()) {
                List<String> oneByOne = new ArrayList<>();
                for (Title title : resolver.estate().titles()) {
                    for (int unit = 0; unit < resolver.audiences().size(title.scope()); unit++) {
                        if (resolver.audiences().device(unit, title.scope()).id().equals(device.id())) {
                            oneByOne.add(words(Trail.of(resolver, title, unit)));
                        }
                    }
                }
                assertThat(Trails.of(resolver).all(device).stream().map(TrailLawsTest::words)).as("seed %d, %s", seed, device.id())
                        .isEqualTo(oneByOne);
            }
        }
    }

    private static String words(Trail trail) {
        return trail.title().id() + " " + trail.decision().map(Rows::words) + " " + trail.rungs() + " " + trail.sentence();
    }

    /** An OU's trail is said to be that of a device which stands there and of which nothing else is known: so put one there. */
    @Test
    void anOusTrailIsThatOfABareDeviceInIt() {
        for (long seed = 0; seed < ESTATES; seed++) {
            EstateParts parts = withoutWhatAnOuCannotKnow(RandomEstates.parts(seed));
            for (int ou = 0; ou < parts.ous().size(); ou++) {
                List<Device> devices = new ArrayList<>(parts.devices());
                devices.add(new Device("zz-bare", "zz-bare", parts.ous().get(ou).id(), List.of(), Facts.NONE, List.of(), List.of()));
                Resolver resolver = Resolver.of(Estate.of(parts.withDevices(devices)));
                int unit = resolver.estate().devices().position("zz-bare");
                int at = resolver.estate().ous().position(parts.ous().get(ou).id());
                for (Title title : resolver.estate().titles()) {
                    assertThat(verdicts(Trail.at(resolver, at, title))).as("seed %d, %s, %s", seed, parts.ous().get(ou).id(), title.id())
                            .isEqualTo(verdicts(Trail.of(resolver, title, unit)));
                }
            }
        }
    }

    private static String verdicts(Trail trail) {
        return trail.decision().map(Rows::words) + " " + trail.rungs().stream().map(r -> r.assignment().id() + " " + r.target() + " " + r.rank()
                + " " + (r.verdict() instanceof Verdict.NarrowedOut ? "narrowed out" : r.verdict())).toList();
    }

    /** Relations, seats, what fits, rules that a bare device satisfies, and shares of waves. */
    private static EstateParts withoutWhatAnOuCannotKnow(EstateParts parts) {
        List<Title> titles = parts.titles().stream().map(t -> new Title(t.id(), t.name(), Scope.DEVICE, null, List.of(),
                t.releases().stream().map(r -> new Release(r.version(), r.state(), List.of(), List.of(),
                        r.variants().stream().map(v -> new Variant(v.id(), null)).toList())).toList())).toList();
        List<Assignment> assignments = parts.assignments().stream()
                .filter(a -> a.include().stream().noneMatch(TrailLawsTest::isCollection) && a.exclude().stream().noneMatch(TrailLawsTest::isCollection))
                .map(a -> a.within() == null ? a : a.withWithin("x.never eq \"x\""))
                .map(a -> a.withWaves(a.waves().stream().anyMatch(w -> w.share() != null || w.to().stream().anyMatch(TrailLawsTest::isCollection))
                        ? List.of() : a.waves())).toList();
        List<Device> devices = parts.devices().stream().map(d -> new Device(d.id(), d.name(), d.ou(), d.people(), d.facts(), d.software(),
                List.of())).toList();
        return parts.withTitles(titles).withDevices(devices).withAssignments(assignments).withRequests(List.of());
    }

    private static boolean isCollection(Target target) {
        return target.kind() == Target.Kind.COLLECTION;
    }

    /** Against the rules of the choice, read anew from the releases (section 6). */
    @Test
    void theReleasesSayWhyTheyAreNotChosen() {
        for (long seed = 0; seed < ESTATES; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (Title title : resolver.estate().titles()) {
                for (int unit = 0; unit < resolver.audiences().size(title.scope()); unit++) {
                    checkReleases(resolver, Trail.of(resolver, title, unit), unit, "seed " + seed + ", " + title.id() + " at " + unit);
                }
            }
        }
    }

    private static void checkReleases(Resolver resolver, Trail trail, int unit, String what) {
        Rung deciding = trail.deciding();
        Version pin = deciding == null ? null : deciding.assignment().pin();
        int device = resolver.audiences().devicePosition(unit, trail.title().scope());
        boolean found = false;
        for (ReleaseLook look : trail.releases()) {
            boolean pinned = pin == null || pin.compareTo(look.release().version()) == 0;
            boolean fits = look.release().variants().stream().anyMatch(v -> fits(resolver, v, device));
            ReleaseLook.Kind expected = !look.release().isOffered() ? ReleaseLook.Kind.WITHDRAWN : !pinned ? ReleaseLook.Kind.NOT_PINNED
                    : found ? ReleaseLook.Kind.OLDER : fits ? ReleaseLook.Kind.CHOSEN : ReleaseLook.Kind.DOES_NOT_FIT;
            assertThat(look.kind()).as(what + " " + look.release().version()).isEqualTo(expected);
            found |= expected == ReleaseLook.Kind.CHOSEN;
            look.variants().forEach(v -> {
                assertThat(v.fits()).as(what).isEqualTo(fits(resolver, v.variant(), device));
                assertThat(v.clauses().isEmpty()).as(what).isEqualTo(v.variant().fits() == null);
            });
        }
        assertThat(trail.releases().stream().map(ReleaseLook::release)).as(what).isSortedAccordingTo(
                (a, b) -> b.version().compareTo(a.version()));
    }

    private static boolean fits(Resolver resolver, Variant variant, int device) {
        return variant.fits() == null || resolver.audiences().satisfying(variant.fits(), Scope.DEVICE).contains(device);
    }

    @Test
    void theOtherTrailIsThatOfTheTitleThatIsNamed() {
        int[] seen = new int[1];
        for (long seed = 0; seed < ESTATES; seed++) {
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (Title title : resolver.estate().titles()) {
                for (int unit = 0; unit < resolver.audiences().size(title.scope()); unit++) {
                    Trail trail = Trail.of(resolver, title, unit);
                    @Nullable String by = trail.decision().map(Decision::by).orElse(null);
                    Trail other = trail.other();
                    assertThat(other == null ? null : other.title().id()).isEqualTo(by);
                    if (other != null && other.title().scope() == title.scope()) {
                        assertThat(words(other)).isEqualTo(words(Trail.of(resolver, other.title(), unit)));
                        seen[0]++;
                    }
                }
            }
        }
        assertThat(seen[0]).isPositive();
    }
}
