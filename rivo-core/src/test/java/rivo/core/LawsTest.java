package rivo.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import rivo.core.audience.Audiences;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;

/** What holds for every estate, on random ones. */
class LawsTest {

    private static final int ESTATES = 700;

    @Test
    void theOrderOfTheInputNeverMatters() {
        for (long seed = 0; seed < ESTATES; seed++) {
            EstateParts parts = RandomEstates.parts(seed);
            Random random = new Random(seed);
            EstateParts shuffled = new EstateParts(parts.asOf(), shuffled(parts.ous(), random),
                    shuffled(parts.users(), random), shuffled(parts.devices(), random), shuffled(parts.groups(), random),
                    shuffled(parts.collections(), random), shuffled(parts.titles(), random),
                    shuffled(parts.kits(), random), shuffled(parts.assignments(), random),
                    shuffled(parts.requests(), random));
            assertThat(rows(shuffled)).as("seed %d", seed).isEqualTo(rows(parts));
        }
    }

    private static <T> List<T> shuffled(List<T> list, Random random) {
        List<T> copy = new ArrayList<>(list);
        Collections.shuffle(copy, random);
        return copy;
    }

    private static Map<String, String> rows(EstateParts parts) {
        return Rows.byTitle(Resolver.of(Estate.of(parts)));
    }

    @Test
    void anUnrelatedTitleChangesNothingElse() {
        for (long seed = 0; seed < ESTATES; seed++) {
            EstateParts parts = RandomEstates.parts(seed);
            List<Title> titles = new ArrayList<>(parts.titles());
            titles.add(Title.of("zz", "Unrelated", List.of(Estates.release("1.0"))));
            List<Assignment> assignments = new ArrayList<>(parts.assignments());
            assignments.add(Assignment.of("zz", 9999, Subject.title("zz"), Intent.REQUIRED, List.of(Target.ALL_DEVICES)));
            Map<String, String> rows = new TreeMap<>(rows(parts.withTitles(titles).withAssignments(assignments)));
            rows.keySet().removeIf(key -> key.endsWith("|zz"));
            assertThat(rows).as("seed %d", seed).isEqualTo(rows(parts));
        }
    }

    @Test
    void manyThreadsSayWhatOneSays() {
        for (long seed = 0; seed < 150; seed++) {
            Estate estate = Estate.of(RandomEstates.parts(seed));
            assertThat(Resolver.of(estate).all(4)).as("seed %d", seed).isEqualTo(Resolver.of(estate).all());
        }
    }

    @Test
    void aChangedEstateSaysWhatOneMadeAnewSays() {
        for (long seed = 0; seed < ESTATES * 3; seed++) {
            Random random = new Random(seed);
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (int step = 0; step < 4; step++) {
                warm(resolver);
                Estate changed = RandomChanges.change(resolver.estate(), random);
                Resolver followed = resolver.follow(changed);
                Map<String, String> anew = rows(changed.parts());
                assertThat(Rows.byTitle(followed)).as("seed %d, step %d", seed, step).isEqualTo(anew);
                assertThat(Rows.byDevice(followed)).as("seed %d, step %d", seed, step).isEqualTo(anew);
                rehearsalIsTheDifference(resolver, followed, Rows.byTitle(resolver), anew, "seed " + seed + ", step " + step);
                resolver = followed;
            }
        }
    }

    /** Whoever remembers an answer need not ask again; and it must often be so, or less is tested than this says. */
    @Test
    void whatIsTheSameIsAnsweredTheSameForAsLongAsTheAnswersAre() {
        int[] stayed = new int[3];
        for (long seed = 0; seed < ESTATES * 3; seed++) {
            Random random = new Random(seed);
            Resolver resolver = Resolver.of(Estate.of(RandomEstates.parts(seed)));
            for (int step = 0; step < 4; step++) {
                if (random.nextBoolean()) {
                    warm(resolver);
                }
                Resolver followed = resolver.follow(RandomChanges.change(resolver.estate(), random));
                boolean ticked = !followed.estate().asOf().equals(resolver.estate().asOf());
                for (Device device : followed.estate().devices().all()) {
                    if (resolver.estate().devices().find(device.id()) == device
                            && followed.answers().of(device.id()) == resolver.answers().of(device.id())) {
                        assertThat(followed.device(device)).as("seed %d, step %d", seed, step).isEqualTo(resolver.device(device));
                        stayed[ticked ? followed.answers() == resolver.answers() ? 0 : 1 : 2]++;
                    }
                }
                resolver = followed;
            }
        }
        assertThat(stayed[0]).as("when time went on").isGreaterThan(ESTATES);
        assertThat(stayed[1]).as("when that made others another").isGreaterThan(ESTATES / 10);
        assertThat(stayed[2]).as("when something else changed").isGreaterThan(ESTATES);
    }

    /** So that there is something to carry over. */
    private static void warm(Resolver resolver) {
        resolver.all();
        Audiences audiences = resolver.audiences();
        resolver.estate().collections().keySet().forEach(audiences::collection);
    }

    /** Rehearses, and compares with the rows of both. */
    static void rehearsalIsTheDifference(Resolver before, Resolver after, Map<String, String> old,
            Map<String, String> now, String what) {
        Map<String, String> expected = new HashMap<>();
        Set<String> keys = new HashSet<>(old.keySet());
        keys.addAll(now.keySet());
        for (String key : keys) {
            if (!Objects.equals(old.get(key), now.get(key))) {
                expected.put(key, old.get(key) + " > " + now.get(key));
            }
        }
        Map<String, String> found = new HashMap<>();
        Rehearsal.of(before, after).titles().forEach(title -> {
            title.differences().forEach(d -> add(found, after.audiences(), title.title(), d));
            title.gone().forEach(d -> add(found, before.audiences(), title.title(), d));
        });
        assertThat(found).as(what).isEqualTo(expected);
    }

    private static void add(Map<String, String> found, Audiences audiences, Title title, Difference difference) {
        audiences.each(difference.units()).forEach(unit -> found.put(unit.device().id() + "|" + unit.user() + "|" + title.id(),
                words(difference.before()) + " > " + words(difference.after())));
    }

    private static String words(@org.jspecify.annotations.Nullable Decision decision) {
        return decision == null ? "null" : Rows.words(decision);
    }

    @Test
    void anEmptyEstateIsAnsweredToo() {
        EstateParts parts = EstateParts.none(Estates.AS_OF).withOus(List.of(new Ou("root", "root", "", null, false)));
        assertThat(rows(parts)).isEmpty();
        assertThat(Facts.of(Map.of())).isSameAs(Facts.NONE);
    }
}
