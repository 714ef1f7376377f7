package rivo.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.RandomEstates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Kit;
import rivo.core.estate.Need;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.Resolver.UnitOutcome;

/** What holds for the plan of every device, on random estates. */
class PlanLawsTest {

    private static final int ESTATES = 250;

    /** A device of a random estate, with its outcomes and its plan. */
    private record Planned(Estate estate, Device device, Map<String, UnitOutcome> outcomes, List<Action> actions, String what) {

        List<Action> of(Action.Kind kind) {
            return actions.stream().filter(action -> action.kind() == kind).toList();
        }

        int place(Action.Kind kind, String unit) {
            return of(kind).stream().map(PlanLawsTest::unit).toList().indexOf(unit);
        }
    }

    /** Half of the assignments have a deadline, some of them the same. */
    private static @Nullable Instant deadline(Assignment assignment) {
        int hash = Math.floorMod(assignment.id().hashCode(), 6);
        return hash < 3 ? null : Instant.ofEpochSecond(1_800_000_000L + hash % 2 * 60);
    }

    private interface Law {
        void check(Planned planned);
    }

    private static void forEveryDevice(Law law) {
        for (long seed = 0; seed < ESTATES; seed++) {
            Estate estate = Estate.of(RandomEstates.parts(seed));
            Resolver resolver = Resolver.of(estate);
            for (Device device : estate.devices().all()) {
                Map<String, UnitOutcome> outcomes = resolver.device(device).stream()
                        .collect(Collectors.toMap(o -> unit(o.user(), o.title().id()), o -> o));
                law.check(new Planned(estate, device, outcomes, Plan.of(resolver, device, PlanLawsTest::deadline).actions(),
                        "seed " + seed + ", " + device.id()));
            }
        }
    }

    private static String unit(String user, String title) {
        return user + "|" + title;
    }

    private static String unit(Action action) {
        return unit(action.user(), action.title());
    }

    @Test
    void whatIsRequiredGoesOnAsItIsDecidedAndNothingElse() {
        forEveryDevice(planned -> assertThat(planned.of(Action.Kind.INSTALL).stream().map(a -> unit(a) + " " + a.version() + " " + a.variant()
                + " " + a.assignment())).as(planned.what()).containsExactlyInAnyOrderElementsOf(planned.outcomes().entrySet().stream()
                .filter(e -> e.getValue().decision().outcome() == Outcome.REQUIRED).map(e -> e.getKey() + " "
                        + e.getValue().decision().release().version() + " " + e.getValue().decision().variant() + " "
                        + e.getValue().decision().winner()).toList()));
    }

    @Test
    void whatComesOffIsUninstalledOrMakesRoom() {
        forEveryDevice(planned -> assertThat(planned.of(Action.Kind.REMOVE).stream().map(PlanLawsTest::unit)).as(planned.what())
                .containsExactlyInAnyOrderElementsOf(planned.outcomes().keySet().stream().filter(unit -> comesOff(planned, unit)).toList()));
    }

    private static boolean comesOff(Planned planned, String unit) {
        UnitOutcome outcome = planned.outcomes().get(unit);
        String title = outcome.title().id();
        boolean present = planned.device().present(title, outcome.user().isEmpty() ? null : outcome.user()) != null;
        UnitOutcome by = planned.outcomes().get(unit(outcome.user(), String.valueOf(outcome.decision().by())));
        boolean putOn = by != null && by.decision().outcome() == Outcome.REQUIRED;
        return switch (outcome.decision().outcome()) {
            case UNINSTALL -> true;
            case REPLACED -> present && (by == null || by.decision().release() == null || by.decision().release().replaces().stream()
                    .filter(r -> r.title().equals(title)).anyMatch(r -> r.mode() == Replacement.Mode.REMOVE_FIRST));
            case DISPLACED -> present && putOn;
            default -> false;
        };
    }

    @Test
    void everythingThatComesOffDoesSoBeforeAnythingGoesOn() {
        forEveryDevice(planned -> {
            List<Action> off = planned.of(Action.Kind.REMOVE);
            assertThat(planned.actions().subList(0, off.size())).as(planned.what()).isEqualTo(off);
        });
    }

    @Test
    void aNeedGoesOnBeforeWhatNeedsIt() {
        forEveryDevice(planned -> planned.of(Action.Kind.INSTALL).forEach(action -> {
            for (String need : needs(planned, unit(action))) {
                if (!reaches(planned, need, unit(action))) {
                    assertThat(planned.place(Action.Kind.INSTALL, need)).as("%s: %s before %s", planned.what(), need, unit(action))
                            .isLessThan(planned.place(Action.Kind.INSTALL, unit(action)));
                }
            }
        }));
    }

    /** The units among those that go on which the chosen release of this one needs. */
    private static List<String> needs(Planned planned, String unit) {
        UnitOutcome outcome = planned.outcomes().get(unit);
        List<String> needs = new ArrayList<>();
        for (Need need : outcome.decision().release().needs()) {
            String user = planned.estate().title(need.title()).scope() == Scope.DEVICE ? "" : outcome.user();
            UnitOutcome needed = planned.outcomes().get(unit(user, need.title()));
            if (needed != null && needed.decision().outcome() == Outcome.REQUIRED) {
                needs.add(unit(user, need.title()));
            }
        }
        return needs;
    }

    private static boolean reaches(Planned planned, String from, String to) {
        List<String> seen = new ArrayList<>(List.of(from));
        for (int i = 0; i < seen.size(); i++) {
            needs(planned, seen.get(i)).stream().filter(next -> !seen.contains(next)).forEach(seen::add);
        }
        return seen.contains(to);
    }

    @Test
    void whatIsNotPulledForwardGoesOnByDeadlineThenPublishingThenKit() {
        forEveryDevice(planned -> {
            List<UnitOutcome> inTurn = planned.of(Action.Kind.INSTALL).stream().filter(a -> !a.why().endsWith(", which needs it"))
                    .map(a -> planned.outcomes().get(unit(a))).toList();
            assertThat(inTurn).as(planned.what()).isSortedAccordingTo(order(planned.estate()));
        });
    }

    private static Comparator<UnitOutcome> order(Estate estate) {
        return Comparator.comparing((UnitOutcome o) -> o.decision().winner() == null ? null : deadline(o.decision().winner()),
                        Comparator.nullsLast(Comparator.naturalOrder()))
                .thenComparing(o -> o.decision().winner() == null ? Long.MAX_VALUE : o.decision().winner().seq())
                .thenComparing(o -> kit(estate, o) == null ? 0 : kit(estate, o).titles().indexOf(o.title().id()))
                .thenComparing(o -> o.title().scope()).thenComparing(o -> o.title().id()).thenComparing(UnitOutcome::user);
    }

    private static @Nullable Kit kit(Estate estate, UnitOutcome outcome) {
        Assignment winner = outcome.decision().winner();
        return winner == null || !winner.subject().kit() ? null : estate.kits().get(winner.subject().id());
    }

    @Test
    void whatIsPulledForwardStandsBeforeWhatNeedsIt() {
        forEveryDevice(planned -> {
            List<Action> on = planned.of(Action.Kind.INSTALL);
            for (int i = 0; i < on.size(); i++) {
                String why = on.get(i).why();
                if (why.endsWith(", which needs it")) {
                    String unit = unit(on.get(i));
                    assertThat(on.subList(i + 1, on.size()).stream().filter(later -> needs(planned, unit(later)).contains(unit))
                            .map(later -> "before " + name(planned.estate(), later.title()) + ", which needs it")).as(planned.what()).contains(why);
                }
            }
        });
    }

    private static String name(Estate estate, String title) {
        String name = estate.title(title).name();
        return name.isEmpty() ? title : name;
    }

    @Test
    void eachSaysWhyItStandsWhereItStands() {
        forEveryDevice(planned -> planned.actions().forEach(action -> {
            UnitOutcome outcome = planned.outcomes().get(unit(action));
            String by = outcome.decision().by();
            if (action.kind() == Action.Kind.REMOVE) {
                assertThat(action.why()).as(planned.what()).isEqualTo(by == null ? "before anything goes on"
                        : outcome.decision().outcome() == Outcome.REPLACED ? "before " + name(planned.estate(), by) + ", which takes its place"
                        : "before " + name(planned.estate(), by) + ", in whose way it is");
            } else if (!action.why().endsWith(", which needs it")) {
                Kit kit = kit(planned.estate(), outcome);
                Instant due = outcome.decision().winner() == null ? null : deadline(outcome.decision().winner());
                assertThat(action.why()).as(planned.what()).isEqualTo(kit != null ? "in the order of the kit " + kit.name()
                        : due == null ? "after what comes off, in the order of publishing" : "by its deadline, " + due);
            }
        }));
    }

    @Test
    void aTitleComesOffBeforeThoseItNeedsWhereNoCircleForbidsIt() {
        forEveryDevice(planned -> {
            List<Action> off = planned.of(Action.Kind.REMOVE);
            Map<String, Integer> places = new HashMap<>();
            off.forEach(action -> places.putIfAbsent(unit(action), places.size()));
            for (Action one : off) {
                for (Action other : off) {
                    boolean needs = needsAnyhow(planned.estate(), one.title(), other.title());
                    if (needs && !needsAtLast(planned, off, other.title(), one.title())) {
                        assertThat(places.get(unit(one))).as("%s: %s before %s", planned.what(), one.title(), other.title())
                                .isLessThan(places.get(unit(other)));
                    }
                }
            }
        });
    }

    private static boolean needsAnyhow(Estate estate, String title, String other) {
        return estate.title(title).releases().stream().flatMap(r -> r.needs().stream()).anyMatch(n -> n.title().equals(other));
    }

    /** Through others that come off. */
    private static boolean needsAtLast(Planned planned, List<Action> off, String title, String other) {
        List<String> seen = new ArrayList<>(List.of(title));
        for (int i = 0; i < seen.size(); i++) {
            String at = seen.get(i);
            off.stream().map(Action::title).filter(next -> needsAnyhow(planned.estate(), at, next) && !seen.contains(next)).forEach(seen::add);
        }
        return seen.contains(other);
    }
}
