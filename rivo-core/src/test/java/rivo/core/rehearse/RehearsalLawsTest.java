package rivo.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.RandomChanges;
import rivo.core.RandomEstates;
import rivo.core.Rows;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Intent;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;

/** Random changes of random estates, against all outcomes of both compared one by one. */
class RehearsalLawsTest {

    private static final int ESTATES = 150;

    private interface Law {
        void check(Resolver before, Resolver after, Rehearsal rehearsal, String what);
    }

    private static void forRandomChanges(Law law) {
        for (long seed = 0; seed < ESTATES; seed++) {
            Random random = new Random(seed);
            Resolver before = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (int step = 0; step < 3; step++) {
                Resolver after = before.follow(change(before.estate(), random));
                law.check(before, after, Rehearsal.of(before, after), "seed " + seed + ", step " + step);
                law.check(after, before, Rehearsal.of(after, before), "seed " + seed + ", step " + step + " turned back");
                before = after;
            }
        }
    }

    /** Half of them are what an administrator edits. */
    private static Estate change(Estate estate, Random random) {
        if (random.nextBoolean()) {
            return RandomChanges.change(estate, random);
        }
        List<Assignment> all = estate.assignments().all();
        Title title = List.copyOf(estate.titles()).get(random.nextInt(estate.titles().size()));
        Target target = switch (random.nextInt(3)) {
            case 0 -> Target.ALL_DEVICES;
            case 1 -> Target.ou(estate.ous().at(random.nextInt(estate.ous().size())).id());
            default -> Target.device(estate.devices().at(random.nextInt(estate.devices().size())).id());
        };
        Intent intent = Intent.values()[random.nextInt(Intent.values().length)];
        Assignment added = Assignment.of("new" + estate.assignments().nextSeq(), estate.assignments().nextSeq(),
                Subject.title(title.id()), intent, List.of(target));
        return switch (random.nextInt(3)) {
            case 0 -> estate.withAssignments(List.of(added));
            case 1 -> Estate.of(withAnotherTitle(estate.parts(), "z" + estate.assignments().nextSeq(), target, intent));
            default -> all.isEmpty() ? estate : estate.withAssignments(List.of(all.get(random.nextInt(all.size())).retired(), added));
        };
    }

    private static EstateParts withAnotherTitle(EstateParts parts, String id, Target target, Intent intent) {
        List<Title> titles = new ArrayList<>(parts.titles());
        titles.add(Title.of(id, "Another", List.of(Estates.release("1.0"))));
        List<Assignment> assignments = new ArrayList<>(parts.assignments());
        assignments.add(Assignment.of(id, 9000 + assignments.size(), Subject.title(id), intent, List.of(target)));
        return parts.withTitles(titles).withAssignments(assignments);
    }

    /** Every outcome of a title, by device and person. */
    private static Map<String, Decision> outcomes(Resolver resolver, String title) {
        Map<String, Decision> outcomes = new HashMap<>();
        Title known = resolver.estate().title(title);
        if (known != null) {
            resolver.title(known).parts().forEach(part -> part.units().forEach(unit -> outcomes.put(
                    key(resolver.audiences(), known.scope(), unit), part.decision())));
        }
        return outcomes;
    }

    private static Map<String, String> rows(Resolver resolver, String title) {
        return outcomes(resolver, title).entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> Rows.words(e.getValue())));
    }

    private static String key(Audiences audiences, Scope scope, int unit) {
        return audiences.device(unit, scope).id() + "|" + audiences.user(unit, scope);
    }

    private static Set<String> keys(Audiences audiences, UnitSet units) {
        Set<String> keys = new TreeSet<>();
        units.forEach(unit -> keys.add(key(audiences, units.scope(), unit)));
        return keys;
    }

    private static @Nullable String words(@Nullable Decision decision) {
        return decision == null ? null : Rows.words(decision);
    }

    private static Stream<String> titles(Resolver before, Resolver after) {
        return Stream.concat(before.estate().titles().stream(), after.estate().titles().stream()).map(Title::id).distinct();
    }

    @Test
    void exactlyWhatBecomesDifferentIsSaidAndUnderItsEffect() {
        forRandomChanges((before, after, rehearsal, what) -> titles(before, after).forEach(id -> {
            Map<String, Decision> was = outcomes(before, id);
            Map<String, Decision> is = outcomes(after, id);
            Map<String, String> expected = new HashMap<>();
            Stream.concat(was.keySet().stream(), is.keySet().stream()).distinct().forEach(unit -> {
                if (!Objects.equals(words(was.get(unit)), words(is.get(unit)))) {
                    expected.put(unit, Effect.of(was.get(unit), is.get(unit)) + ": " + words(was.get(unit)) + " > " + words(is.get(unit)));
                }
            });
            Map<String, String> said = new HashMap<>();
            TitleDifference found = rehearsal.of(id);
            if (found != null) {
                found.differences().forEach(d -> keys(after.audiences(), d.units()).forEach(unit -> said.put(unit,
                        d.effect() + ": " + words(d.before()) + " > " + words(d.after()))));
                found.gone().forEach(d -> keys(before.audiences(), d.units()).forEach(unit -> said.put(unit,
                        d.effect() + ": " + words(d.before()) + " > " + words(d.after()))));
                assertThat(found.isEmpty()).as(what + " " + id).isEqualTo(expected.isEmpty());
                assertThat(rehearsal.changed().contains(found)).as(what + " " + id).isEqualTo(!expected.isEmpty());
            }
            assertThat(said).as(what + " " + id).isEqualTo(expected);
        }));
    }

    @Test
    void theCountsAreThoseOfTheUnitsOneByOne() {
        forRandomChanges((before, after, rehearsal, what) -> rehearsal.titles().forEach(title -> {
            if (after.estate().title(title.title().id()) == null) {
                return;
            }
            Counts counts = new Counts(title, outcomes(before, title.title().id()), outcomes(after, title.title().id()), after.audiences());
            counts.check(what + " gains", title.gains(), (was, is) -> is(is, Outcome.REQUIRED) && !is(was, Outcome.REQUIRED));
            counts.check(what + " loses", title.loses(), (was, is) -> is(was, Outcome.REQUIRED) && !is(is, Outcome.REQUIRED));
            counts.check(what + " removes", title.removes(), (was, is) -> takesOff(is) && !takesOff(was));
            counts.check(what + " newly contested", title.newlyContested(), (was, is) -> is(is, Outcome.CONTESTED) && !is(was, Outcome.CONTESTED));
            counts.check(what + " settled", title.settled(), (was, is) -> is(was, Outcome.CONTESTED) && !is(is, Outcome.CONTESTED));
            counts.checkWhere(what + " removes present", title.removesPresent(after.audiences()), title.removes(), unit -> counts.present(unit) != null);
            counts.checkWhere(what + " fetches", title.fetches(after.audiences()), title.gains(), unit -> {
                Present present = counts.present(unit);
                return present == null || present.version() == null || present.version().compareTo(counts.decided(unit).release().version()) < 0;
            });
        }));
    }

    private static boolean is(@Nullable Decision decision, Outcome outcome) {
        return decision != null && decision.outcome() == outcome;
    }

    private static boolean takesOff(@Nullable Decision decision) {
        return is(decision, Outcome.UNINSTALL) || is(decision, Outcome.REPLACED);
    }

    /** The units of a title that are there after the change, one by one. */
    private record Counts(TitleDifference title, Map<String, Decision> was, Map<String, Decision> is, Audiences audiences) {

        void check(String what, UnitSet said, BiPredicate<@Nullable Decision, @Nullable Decision> test) {
            Set<String> expected = new TreeSet<>();
            for (int unit = 0; unit < audiences.size(title.title().scope()); unit++) {
                String key = key(audiences, title.title().scope(), unit);
                if (!Objects.equals(words(was.get(key)), words(is.get(key))) && test.test(was.get(key), is.get(key))) {
                    expected.add(key);
                }
            }
            assertThat(keys(audiences, said)).as(what).isEqualTo(expected);
        }

        void checkWhere(String what, UnitSet said, UnitSet among, java.util.function.IntPredicate where) {
            Set<String> expected = new TreeSet<>();
            among.forEach(unit -> {
                if (where.test(unit)) {
                    expected.add(key(audiences, title.title().scope(), unit));
                }
            });
            assertThat(keys(audiences, said)).as(what).isEqualTo(expected);
        }

        Decision decided(int unit) {
            return Objects.requireNonNull(is.get(key(audiences, title.title().scope(), unit)));
        }

        @Nullable Present present(int unit) {
            Scope scope = title.title().scope();
            return audiences.device(unit, scope).present(title.title().id(), scope == Scope.USER ? audiences.user(unit, scope) : null);
        }
    }

    @Test
    void whatIsNotLookedAtIsTheSameAndNothingChangesNothing() {
        forRandomChanges((before, after, rehearsal, what) -> {
            titles(before, after).filter(id -> rehearsal.of(id) == null).forEach(id -> assertThat(rows(after, id)).as(what + " " + id)
                    .isEqualTo(rows(before, id)));
            assertThat(Rehearsal.of(after, after).titles()).as(what).isEmpty();
        });
    }

    @Test
    void eachEffectIsWhatItsNameSays() {
        Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(1)));
        Map<Outcome, Decision> some = new HashMap<>();
        for (long seed = 0; some.size() < Outcome.values().length && seed < 2000; seed++) {
            resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            resolver.all().values().forEach(t -> t.parts().forEach(part -> some.putIfAbsent(part.decision().outcome(), part.decision())));
        }
        assertThat(some.keySet()).containsExactlyInAnyOrder(Outcome.values());
        for (Outcome was : Outcome.values()) {
            assertThat(Effect.of(some.get(was), null)).isEqualTo(was == Outcome.REQUIRED ? Effect.LOSES
                    : was == Outcome.AVAILABLE ? Effect.WITHDRAWN : Effect.SETTLED);
            for (Outcome is : Outcome.values()) {
                if (was != is) {
                    assertThat(Effect.of(some.get(was), some.get(is))).as(was + " > " + is).isEqualTo(named(was, is));
                }
            }
            assertThat(Effect.of(null, some.get(was))).isEqualTo(named(null, was));
        }
        assertThat(Effect.OTHER_RELEASE.word()).isEqualTo("other-release");
    }

    private static Effect named(@Nullable Outcome was, Outcome is) {
        return switch (is) {
            case REQUIRED -> Effect.GAINS;
            case AVAILABLE -> was == Outcome.REQUIRED ? Effect.LOSES : Effect.OFFERED;
            case UNINSTALL -> Effect.REMOVED;
            default -> Effect.valueOf(is.name());
        };
    }

    @Test
    void anotherReleaseIsToldApartFromAnotherReason() {
        int[] seen = new int[2];
        forRandomChanges((before, after, rehearsal, what) -> rehearsal.titles().forEach(title -> title.differences().forEach(d -> {
            if (d.before() != null && d.after() != null && d.before().outcome() == d.after().outcome()) {
                boolean same = Objects.equals(d.before().release(), d.after().release()) && Objects.equals(d.before().variant(), d.after().variant());
                assertThat(d.effect()).as(what).isEqualTo(same ? Effect.OTHER_REASON : Effect.OTHER_RELEASE);
                seen[same ? 0 : 1]++;
            }
        })));
        assertThat(seen[0]).isPositive();
        assertThat(seen[1]).isPositive();
    }
}
