package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Differences;
import rivo.core.Estates;
import rivo.core.Rows;
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
import rivo.core.rehearse.Rehearsal;
import rivo.core.rule.EstateRules;

/**
 * A catalogue that hangs together by what many titles need, of which few have anything else to do with each other at any one device: what an edit is said to change is
 * what is different when all is resolved anew.
 */
class ComesAnywayTest {

    private static final int SEEDS = Integer.getInteger("rivo.comes-anyway-seeds", 20);
    private static final int EDITS = 8;
    private static final int TITLES = 30;
    /** Needed by many. */
    private static final int RUNTIME = TITLES - 1;
    /** Needed by some, and may need the runtime itself. */
    private static final int HELPER = TITLES - 2;
    private static final int DEVICES = 300;
    private static final int GROUPS = 60;
    private static final Version OLDEST = Version.of("1.0");

    @Test
    void whatAnEditChangesIsWhatIsDifferentWhenAllIsResolvedAnew() {
        for (long seed = 0; seed < SEEDS; seed++) {
            Random random = new Random(seed);
            EstateParts parts = parts(random);
            assertThat(EstateRules.problems(parts)).as("seed %d", seed).isEmpty();
            Estate estate = Estate.of(parts);
            Resolver before = Resolver.of(estate);
            Map<String, String> was = Rows.byTitle(before);
            for (int edit = 0; edit < EDITS; edit++) {
                Estate edited = estate.withAssignments(edits(estate, random));
                Map<String, String> is = Rows.byTitle(Resolver.of(edited));
                assertThat(Differences.said(Rehearsal.of(before, edited), edited)).as("seed %d, edit %d", seed, edit)
                        .isEqualTo(Differences.between(was, is));
            }
        }
    }

    private static List<Assignment> edits(Estate estate, Random random) {
        return IntStream.rangeClosed(0, random.nextInt(4) == 0 ? 2 : 0).mapToObj(i -> {
            Assignment one = estate.assignments().all().get(random.nextInt(estate.assignments().all().size()));
            return switch (random.nextInt(5)) {
                case 4 -> one.withPin(one.pin() == null ? OLDEST : null);
                case 0 -> one.withIntent(one.intent() == Intent.REQUIRED ? Intent.UNINSTALL : Intent.REQUIRED);
                case 1 -> one.withPriority(100 + random.nextInt(900));
                case 2 -> one.retired();
                default -> Assignment.of("new" + i, 900 + i, one.subject(), Intent.REQUIRED, List.of(Target.ALL_DEVICES)).withPriority(100 + random.nextInt(900));
            };
        }).toList();
    }

    private static EstateParts parts(Random random) {
        List<Device> devices = RandomDevices.of(DEVICES, TITLES, 3 + random.nextInt(12), random);
        List<Group> groups = new ArrayList<>();
        for (int g = 0; g < GROUPS; g++) {
            int few = 1 + random.nextInt(12);
            groups.add(new Group("g" + g, "group-" + g, devices.stream().filter(d -> random.nextInt(few) == 0).map(d -> Target.device(d.id())).toList()));
        }
        List<Assignment> assignments = new ArrayList<>();
        for (int a = 0; a < 2 * TITLES; a++) {
            Intent intent = random.nextInt(10) < 6 ? Intent.REQUIRED : random.nextInt(4) < 3 ? Intent.AVAILABLE : Intent.UNINSTALL;
            assignments.add(Assignment.of("a" + a, a, Subject.title("t" + random.nextInt(TITLES)), intent,
                    List.of(Target.group("g" + random.nextInt(GROUPS)))).withPriority(random.nextInt(4) == 0 ? 100 + random.nextInt(900) : 500)
                    .withPin(random.nextInt(6) == 0 ? OLDEST : null));
        }
        return new EstateParts(Estates.AS_OF, List.of(new Ou(RandomDevices.OU, "Quillbrook Water", "dc=quillbrook", null, false)), List.of(), devices, groups,
                List.of(), titles(random), List.of(), assignments, List.of());
    }

    /** Relations are drawn at random, one between any two at the most; what replaces and needs goes in one direction. */
    private static List<Title> titles(Random random) {
        int inHundred = 2 + random.nextInt(8);
        boolean disputed = random.nextInt(4) == 0;
        List<Title> titles = new ArrayList<>();
        for (int t = 0; t < TITLES; t++) {
            List<Need> needs = new ArrayList<>();
            List<Replacement> replaces = new ArrayList<>();
            List<String> conflicts = new ArrayList<>();
            for (int other = t + 1; other < HELPER + (disputed ? 2 : 0); other++) {
                int kind = random.nextInt(100) < inHundred ? random.nextInt(4) : -1;
                if (kind == 0) {
                    needs.add(new Need("t" + other, random.nextBoolean() ? null : Version.of(1 + random.nextInt(3) + ".0")));
                } else if (kind == 1) {
                    conflicts.add("t" + other);
                } else if (kind > 1) {
                    replaces.add(new Replacement("t" + other, Replacement.Mode.IN_PLACE));
                }
            }
            if (t < HELPER && needs.isEmpty() && !disputed && random.nextInt(10) < 2) {
                needs.add(new Need("t" + HELPER, null));
            }
            if (t < RUNTIME && !disputed && random.nextInt(10) < 6) {
                needs.add(new Need("t" + RUNTIME, random.nextInt(3) == 0 ? OLDEST : null));
            }
            List<Release> releases = IntStream.rangeClosed(1, 1 + random.nextInt(3)).mapToObj(r -> new Release(Version.of(r + ".0"),
                    random.nextInt(8) == 0 ? ReleaseState.WITHDRAWN : ReleaseState.OFFERED, needs, random.nextInt(3) == 0 ? List.of() : replaces,
                    random.nextInt(4) > 0 ? List.of(new Variant("all", null)) : List.of(new Variant("large", "ramGiB ge 8")))).toList();
            titles.add(new Title("t" + t, "Title " + t, Scope.DEVICE, random.nextInt(15) == 0 ? 100 : null, conflicts, releases));
        }
        return titles;
    }
}
