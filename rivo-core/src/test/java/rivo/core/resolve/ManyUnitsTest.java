package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Differences;
import rivo.core.Estates;
import rivo.core.Rows;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.naive.NaiveModel;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rule.EstateRules;

/**
 * Hundreds of units that are settled together, each with titles of its own, get what the naive model gives each of them: level titles that replace each
 * other in chains, needs of needs that fail late, and what is present and stays. Few titles, so that all of this happens at the same units.
 */
class ManyUnitsTest {

    private static final int TITLES = 9;
    private static final int DEVICES = 600;
    private static final int GROUPS = 24;

    @Test
    void unitsThatAreSettledTogetherDoNotConcernEachOther() {
        for (long seed = 0; seed < 6; seed++) {
            EstateParts parts = parts(new Random(seed));
            assertThat(EstateRules.problems(parts)).as("seed %d", seed).isEmpty();
            Map<String, String> naive = NaiveModel.rows(parts);
            assertThat(Rows.byTitle(Resolver.of(Estate.of(parts)))).as("seed %d", seed).isEqualTo(naive);
            assertThat(Rows.byDevice(Resolver.of(Estate.of(parts)))).as("seed %d, by device", seed).isEqualTo(naive);
        }
    }

    /** As devices do that call in right after a start. */
    @Test
    void whatAllNeedIsWorkedOutOnceWhenManyAskAtOnce() throws InterruptedException {
        for (long seed = 0; seed < 10; seed++) {
            Resolver resolver = Resolver.of(Estate.of(parts(new Random(seed))));
            Map<Object, Boolean> seen = Collections.synchronizedMap(new IdentityHashMap<>());
            CountDownLatch all = new CountDownLatch(8);
            List<Thread> threads = IntStream.range(0, 8).mapToObj(i -> new Thread(() -> {
                all.countDown();
                try {
                    all.await();
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
                seen.put(resolver.presences(), true);
                seen.put(resolver.pairsByTarget(), true);
            })).toList();
            threads.forEach(Thread::start);
            for (Thread thread : threads) {
                thread.join();
            }
            assertThat(seen).as("seed %d", seed).hasSize(2);
        }
    }

    /** Where an edit makes a difference, by which cause, and how far that goes, is what the naive model says of both states. */
    @Test
    void whatAnEditChangesIsWhatIsDifferentWhenAllIsResolvedAnew() {
        for (long seed = 0; seed < 12; seed++) {
            Random random = new Random(seed);
            Estate estate = Estate.of(parts(random));
            Resolver before = Resolver.of(estate);
            Map<String, String> was = Rows.byTitle(before);
            for (int step = 0; step < 8; step++) {
                Estate edited = estate.withAssignments(IntStream.rangeClosed(0, random.nextInt(3)).mapToObj(i -> edit(estate, i, random)).toList());
                assertThat(EstateRules.problems(edited.parts())).isEmpty();
                Map<String, String> is = step == 0 ? NaiveModel.rows(edited.parts()) : Rows.byTitle(Resolver.of(edited));
                assertThat(Differences.said(Rehearsal.of(before, edited), edited)).as("seed %d, step %d", seed, step)
                        .isEqualTo(Differences.between(was, is));
            }
        }
    }

    /** Of most units, of few, and of a run of them: what is said is what is said of all, there and nowhere else. */
    @Test
    void whatIsAskedOfSomeUnitsIsSaidOfThoseAlone() {
        for (long seed = 0; seed < 6; seed++) {
            Random random = new Random(seed);
            Resolver resolver = Resolver.of(Estate.of(parts(random)));
            Map<String, TitleOutcomes> all = resolver.all();
            for (int percent : new int[] {2, 10, 50, 67}) {
                isSaidOf(resolver, Positions.of(IntStream.range(0, DEVICES).filter(d -> random.nextInt(100) < percent).toArray()), all);
            }
            isSaidOf(resolver, Positions.range(100, 500), all);
        }
    }

    private static void isSaidOf(Resolver resolver, Positions among, Map<String, TitleOutcomes> all) {
        for (Family family : resolver.relations().inOrder()) {
            TitleResolution pass = new TitleResolution(resolver, resolver.presences());
            // From now on it knows of all units what each title comes to by itself.
            family.titles().forEach(pass::base);
            pass.family(family, among).forEach((title, outcomes) -> {
                Map<Integer, Decision> expected = new TreeMap<>(byUnit(Objects.requireNonNull(all.get(title))));
                expected.keySet().removeIf(unit -> !among.contains(unit));
                assertThat(byUnit(outcomes)).as(title).isEqualTo(expected);
            });
        }
    }

    private static Map<Integer, Decision> byUnit(TitleOutcomes outcomes) {
        Map<Integer, Decision> byUnit = new TreeMap<>();
        outcomes.parts().forEach(part -> part.units().positions().forEach(unit -> byUnit.put(unit, part.decision())));
        return byUnit;
    }

    private static Assignment edit(Estate estate, int n, Random random) {
        Assignment one = estate.assignments().all().get(random.nextInt(estate.assignments().all().size()));
        return switch (random.nextInt(5)) {
            case 0 -> one.withIntent(Intent.values()[random.nextInt(Intent.values().length)]);
            case 1 -> one.withPriority(100 + random.nextInt(900));
            case 2 -> one.retired();
            case 3 -> Assignment.of("new" + n, 900 + n, one.subject(), Intent.REQUIRED, List.of(Target.ALL_DEVICES));
            default -> Assignment.of("new" + n, 900 + n, Subject.title("t" + random.nextInt(TITLES)), Intent.values()[random.nextInt(Intent.values().length)],
                    List.of(Target.group("g" + random.nextInt(GROUPS))));
        };
    }

    private static EstateParts parts(Random random) {
        List<Device> devices = RandomDevices.of(DEVICES, TITLES, 4, random);
        List<Group> groups = new ArrayList<>();
        for (int g = 0; g < GROUPS; g++) {
            int few = 1 + random.nextInt(6);
            groups.add(new Group("g" + g, "group-" + g, devices.stream().filter(d -> random.nextInt(few) == 0).map(d -> Target.device(d.id())).toList()));
        }
        List<Title> titles = IntStream.range(0, TITLES).mapToObj(t -> title(t, random)).toList();
        List<Assignment> assignments = new ArrayList<>();
        for (int a = 0; a < 3 * TITLES; a++) {
            Intent intent = random.nextInt(10) < 6 ? Intent.REQUIRED : random.nextInt(4) < 3 ? Intent.AVAILABLE : Intent.UNINSTALL;
            assignments.add(Assignment.of("a" + a, a, Subject.title("t" + random.nextInt(TITLES)), intent,
                    List.of(Target.group("g" + random.nextInt(GROUPS)))).withPriority(random.nextInt(4) == 0 ? 700 : 500));
        }
        return new EstateParts(Estates.AS_OF, List.of(new Ou(RandomDevices.OU, "Quillbrook Water", "dc=quillbrook", null, false)), List.of(), devices, groups,
                List.of(), titles, List.of(), assignments, List.of());
    }

    /** A title and another have one relation at the most, so that none needs what it replaces; and what replaces goes in one direction, what needs in the other. */
    private static Title title(int t, Random random) {
        int[] kinds = random.ints(TITLES, 0, 5).toArray();
        List<Release> releases = new ArrayList<>();
        for (int r = 1; r <= 1 + random.nextInt(3); r++) {
            List<Need> needs = new ArrayList<>();
            List<Replacement> replaces = new ArrayList<>();
            for (int other = t + 1; other < TITLES; other++) {
                if (kinds[other] == 0 && random.nextInt(4) > 0) {
                    needs.add(new Need("t" + other, random.nextBoolean() ? null : Version.of(1 + random.nextInt(3) + ".0")));
                } else if (kinds[other] == 1 && random.nextInt(4) > 0) {
                    replaces.add(new Replacement("t" + other, Replacement.Mode.IN_PLACE));
                }
            }
            releases.add(new Release(Version.of(r + ".0"), random.nextInt(5) == 0 ? ReleaseState.WITHDRAWN : ReleaseState.OFFERED, needs, replaces,
                    random.nextInt(3) == 0 ? List.of(new Variant("large", "ramGiB ge 8")) : List.of(new Variant("large", "ramGiB ge 16"),
                            new Variant("all", null))));
        }
        List<String> conflicts = IntStream.range(t + 1, TITLES).filter(other -> kinds[other] == 2 && other % 2 == t % 2).mapToObj(o -> "t" + o).toList();
        return new Title("t" + t, "Title " + t, Scope.DEVICE, random.nextInt(6) == 0 ? 100 : null, conflicts, releases);
    }
}
