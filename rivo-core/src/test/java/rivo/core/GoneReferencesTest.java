package rivo.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Follows;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Intent;
import rivo.core.estate.Leaving;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.core.explain.Trails;
import rivo.core.resolve.Resolver;

/** What assignments and collections name, and the directory does not have any more (section 11 of the resolution rules). */
class GoneReferencesTest {

    private static final int ESTATES = Integer.getInteger("rivo.random-estates", 150);
    private static final Title LAB = Title.of("lab", "Siltscope Lab", List.of(Estates.release("1.0")));

    @Test
    void whatRestsHoldsNobodyAndWhatExcludesItHoldsWhomItLastHeld() {
        int gone = 0;
        for (long seed = 0; seed < ESTATES; seed++) {
            EstateParts parts = RandomEstates.parts(seed).withRequests(List.of());
            RandomDirectories directories = new RandomDirectories(parts, new Random(seed));
            Resolver resolver = Resolver.of(Estate.of(parts));
            for (int step = 0; step < 4; step++) {
                String what = "seed " + seed + ", step " + step;
                Map<String, String> before = Rows.byTitle(resolver);
                Resolver followed = resolver.follow(resolver.estate().with(directories.change(resolver.estate())));
                Map<String, String> expected = Rows.byTitle(Resolver.of(Estate.ofChecked(plain(followed.estate()))));
                assertThat(Rows.byTitle(Resolver.of(Estate.ofChecked(followed.estate().parts())))).as(what + ", made anew").isEqualTo(expected);
                assertThat(Rows.byTitle(followed)).as(what).isEqualTo(expected);
                assertThat(Rows.byDevice(followed)).as(what).isEqualTo(expected);
                LawsTest.rehearsalIsTheDifference(resolver, followed, before, expected, what);
                trailsAgree(followed);
                gone += followed.estate().gone().size();
                resolver = followed;
            }
        }
        assertThat(gone).as("something rested, or nothing was tested").isGreaterThan(ESTATES);
    }

    /** The same estate without anything that rests: by other words, for those who do not know of resting. */
    private static EstateParts plain(Estate estate) {
        EstateParts parts = estate.parts();
        List<Assignment> assignments = parts.assignments().stream().map(a -> plain(estate, a)).toList();
        List<DeviceCollection> collections = parts.collections().stream().map(c -> c.base() != null && estate.ous().find(c.base()) == null
                ? new DeviceCollection(c.id(), c.name(), null, null, List.of(), List.of())
                : new DeviceCollection(c.id(), c.name(), c.base(), c.rule(), there(estate, c.include()), there(estate, c.exclude()))).toList();
        return parts.withAssignments(assignments).withCollections(collections).withGone(List.of())
                .withDevices(parts.devices().stream().map(d -> withoutKept(estate, d)).toList());
    }

    private static List<String> there(Estate estate, List<String> devices) {
        return devices.stream().filter(d -> estate.devices().find(d) != null).toList();
    }

    private static Assignment plain(Estate estate, Assignment assignment) {
        boolean baseIsGone = assignment.base() != null && estate.ous().find(assignment.base()) == null;
        List<Target> excluded = new ArrayList<>();
        for (Target target : assignment.exclude()) {
            if (RandomDirectories.isThere(estate, target)) {
                excluded.add(target);
            } else {
                GoneReference gone = estate.gone().get(target);
                boolean both = target.kind() != Target.Kind.OU;
                if (both || assignment.follows() == Follows.DEVICE) {
                    gone.devices().stream().filter(d -> estate.devices().find(d) != null).forEach(d -> excluded.add(Target.device(d)));
                }
                if (both || assignment.follows() == Follows.USER) {
                    gone.users().stream().filter(u -> estate.users().find(u) != null).forEach(u -> excluded.add(Target.user(u)));
                }
            }
        }
        return assignment.withBase(baseIsGone ? null : assignment.base()).withExclude(excluded)
                .withInclude(assignment.include().stream().filter(t -> !baseIsGone && RandomDirectories.isThere(estate, t)).toList())
                .withWaves(assignment.waves().stream().map(w -> new Wave(w.to().stream().filter(t -> RandomDirectories.isThere(estate, t)).toList(),
                        w.share(), w.open())).toList());
    }

    /** Forgets who put it on, where that assignment reached only what rests. */
    private static Device withoutKept(Estate estate, Device device) {
        List<Present> present = device.present().stream().map(p -> {
            Assignment by = p.by() == null ? null : estate.assignments().find(p.by());
            return by != null && isKept(estate, by, device, p.user()) ? new Present(p.title(), p.version(), p.user(), null) : p;
        }).toList();
        return device.withReport(device.facts(), device.software(), present);
    }

    private static boolean isKept(Estate estate, Assignment by, Device device, String user) {
        Set<String> people = user == null ? new HashSet<>(device.people()) : Set.of(user);
        return by.base() != null && estate.ous().find(by.base()) == null || by.include().stream().filter(t -> estate.gone().containsKey(t))
                .map(t -> estate.gone().get(t)).anyMatch(gone -> by.follows() == Follows.DEVICE ? gone.devices().contains(device.id())
                        : gone.users().stream().anyMatch(people::contains));
    }

    /** A rung rests exactly where its target or its base has gone. */
    private static void trailsAgree(Resolver resolver) {
        Estate estate = resolver.estate();
        Trails trails = Trails.of(resolver);
        estate.devices().all().forEach(device -> trails.all(device).forEach(trail -> trail.rungs().forEach(rung -> {
            Assignment assignment = rung.assignment();
            boolean rests = assignment.isLive(estate.asOf()) && (estate.gone().containsKey(rung.target())
                    || assignment.base() != null && estate.gone().containsKey(Target.ou(assignment.base())));
            assertThat(trail.sentence(rung).startsWith("rests: ")).isEqualTo(rests);
        })));
    }

    private static EstateParts fleet(Assignment... assignments) {
        List<Ou> ous = List.of(new Ou("root", "Quillbrook", "", null, false), new Ou("labs", "Laboratories", "ou=labs", "root", false));
        List<Device> devices = List.of(Device.of("d1", "one", "labs", List.of()), Device.of("d2", "two", "root", List.of()));
        return EstateParts.none(Instant.EPOCH).withOus(ous).withDevices(devices).withTitles(List.of(LAB)).withAssignments(List.of(assignments));
    }

    private static Assignment require(Target... targets) {
        return Assignment.of("a", 1, Subject.title("lab"), Intent.REQUIRED, List.of(targets));
    }

    private static DirectoryChange labsGo() {
        return DirectoryChange.none(Instant.EPOCH).withOus(List.of(), Set.of("labs")).withDevices(List.of(Device.of("d1", "one", "root", List.of())), Set.of());
    }

    @Test
    void aTrailSaysWhatRestsAndWhatKeepsOutThoughItHasGone() {
        Assignment everywhereElse = Assignment.of("b", 2, Subject.title("lab"), Intent.AVAILABLE, List.of(Target.ALL_DEVICES))
                .withExclude(List.of(Target.ou("labs")));
        Resolver resolver = Resolver.of(Estate.of(fleet(require(Target.ou("labs")), everywhereElse)).with(labsGo()));
        Trails trails = Trails.of(resolver);
        var trail = trails.of(LAB, resolver.estate().devices().position("d1"));
        assertThat(trail.rungs()).extracting(trail::sentence).containsExactlyInAnyOrder("rests: Laboratories has left the directory",
                "excluded by Laboratories, which has left the directory and still excludes its last members");
        assertThat(trail.decision()).isEmpty();
        assertThat(trails.at(0, LAB).rungs()).extracting(trail::sentence).first().isEqualTo("rests: Laboratories has left the directory");
    }

    @Test
    void nothingIsTakenOffBecauseSomethingRests() {
        Assignment required = require(Target.ou("labs")).withLeaving(Leaving.REMOVE);
        EstateParts parts = fleet(required);
        Device with = parts.devices().get(0).withReport(parts.devices().get(0).facts(), List.of(),
                List.of(new Present("lab", Version.of("1.0"), null, "a")));
        Estate before = Estate.of(parts.withDevices(List.of(with, parts.devices().get(1))));
        Estate gone = before.with(DirectoryChange.none(Instant.EPOCH).withOus(List.of(), Set.of("labs")).withDevices(List.of(with.withOu("root")), Set.of()));
        assertThat(Rows.byTitle(Resolver.of(gone))).isEmpty();
        assertThat(Rows.byDevice(Resolver.of(gone))).isEmpty();
        Estate moved = before.withDevice(with.withOu("root"));
        assertThat(Rows.byTitle(Resolver.of(moved))).as("as one that has really left does").hasSize(1);
    }

    @Test
    void whatIsBackSpeaksAgain() {
        Estate before = Estate.of(fleet(require(Target.ou("labs"))));
        Estate gone = before.with(labsGo());
        assertThat(gone.gone().get(Target.ou("labs"))).isEqualTo(new GoneReference(Target.ou("labs"), "Laboratories", Instant.EPOCH,
                List.of("d1"), List.of()));
        Estate back = gone.with(DirectoryChange.none(Instant.EPOCH).withOus(List.of(new Ou("labs", "Laboratories", "ou=labs", "root", false)), Set.of())
                .withDevices(List.of(Device.of("d1", "one", "labs", List.of())), Set.of()));
        assertThat(back.gone()).isEmpty();
        assertThat(Rows.byTitle(Resolver.of(back))).isEqualTo(Rows.byTitle(Resolver.of(before))).isNotEmpty();
    }

    @Test
    void whatNobodyNamesGoesWithoutATrace() {
        assertThat(Estate.of(fleet(require(Target.ALL_DEVICES))).with(labsGo()).gone()).isEmpty();
    }

    @Test
    void whatIsNotNamedStaysTheVerySame() {
        Estate before = Estate.of(fleet(require(Target.ALL_DEVICES)));
        Estate after = before.with(DirectoryChange.none(Instant.EPOCH).withDevices(List.of(Device.of("d3", "three", "labs", List.of())), Set.of()));
        assertThat(after.devices().find("d1")).isSameAs(before.devices().find("d1"));
        assertThat(after.ous()).isSameAs(before.ous());
        assertThat(after.users()).isSameAs(before.users());
        assertThat(after.assignments()).isSameAs(before.assignments());
    }

    @Test
    void whatCannotLeaveTheDirectoryAndOusThatAreNoTreeAreRefused() {
        assertThatThrownBy(() -> new GoneReference(Target.ALL_DEVICES, "", Instant.EPOCH, List.of(), List.of()))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Estate.of(fleet()).with(DirectoryChange.none(Instant.EPOCH).withOus(List.of(), Set.of("root"))))
                .isInstanceOf(RefusedException.class);
    }
}
