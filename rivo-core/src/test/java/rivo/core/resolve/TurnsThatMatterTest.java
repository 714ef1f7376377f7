package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Intent;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
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

/** Whose turns an edit of one title makes matter, on one device for each reason; assigned in the order in which they have their turns. */
class TurnsThatMatterTest {

    private static final Version ONE = Version.of("1.0");
    private static final String EDITED = "edited";

    private final List<Title> titles = new ArrayList<>();
    private final Map<String, List<Present>> present = new TreeMap<>();
    private final List<Assignment> assignments = new ArrayList<>();

    private void title(String id, List<String> conflicts, @Nullable String replaces, String... needs) {
        titles.add(new Title(id, id, Scope.DEVICE, null, conflicts, List.of(new Release(ONE, ReleaseState.OFFERED,
                Stream.of(needs).map(need -> new Need(need, null)).toList(), replaces == null ? List.of() : List.of(new Replacement(replaces, Replacement.Mode.IN_PLACE)),
                List.of(new Variant("all", null))))));
    }

    private void assign(String device, Intent intent, String... all) {
        present.computeIfAbsent(device, d -> new ArrayList<>());
        for (String title : all) {
            assignments.add(Assignment.of("a" + assignments.size(), 1 + assignments.size(), Subject.title(title), intent, List.of(Target.device(device))));
        }
    }

    private void assignWeakly(String device, String title) {
        assignments.add(Assignment.of("a" + assignments.size(), 1 + assignments.size(), Subject.title(title), Intent.REQUIRED, List.of(Target.device(device))).withPriority(400));
    }

    private void present(String device, String title) {
        present.computeIfAbsent(device, d -> new ArrayList<>()).add(Present.of(title, ONE));
    }

    /** For each device the titles whose turns matter there. */
    private Map<String, Set<String>> mattering() {
        List<Device> devices = present.entrySet().stream().map(one -> new Device(one.getKey(), one.getKey(), "root", List.of(), Estates.facts("ramGiB", "16"), List.of(), one.getValue()))
                .toList();
        Estate estate = Estate.of(new EstateParts(Estates.AS_OF, List.of(new Ou("root", "Root", "", null, false)), List.of(), devices, List.of(), List.of(), titles,
                List.of(), assignments, List.of()));
        Resolver resolver = Resolver.of(estate);
        Family family = resolver.relations().of(EDITED);
        TitleResolution pass = new TitleResolution(resolver, resolver.presences());
        Positions among = Positions.range(0, devices.size());
        List<FamilyUnits.Known> known = family.titles().stream().map(t -> new FamilyUnits.Known(pass.base(t, among), resolver.presences().of(t.id()))).toList();
        FamilyUnits units = new FamilyUnits(family, known, Map.of(family.place(EDITED), List.of()), family.titles().stream().map(pass::choices).toList(), List.of(), among, 1);
        FamilyUnits.Teller teller = units.new Teller(units.blocks(1));
        FamilyBits former = new FamilyBits(family, units.turns(), teller, new LaneSets(teller.words()));
        FamilyBits latter = new FamilyBits(former, units.edited());
        former.begin(units.all());
        latter.begin(units.all());
        teller.tell(units.all(), former, latter);
        TurnsThatMatter turns = new TurnsThatMatter(units, TurnReach.of(units), former, latter, new UndisputedNeeds(units, former, (title, part, state, by, reason, where, from, to) -> { }));
        turns.find();
        Map<String, Set<String>> found = new TreeMap<>();
        devices.forEach(device -> found.put(device.id(), new TreeSet<>()));
        for (int share = 0; share < units.turns().size(); share++) {
            long[] where = turns.where(share);
            for (int unit = 0; where != null && unit < devices.size(); unit++) {
                if ((where[unit - units.all().first() >> 6] >>> unit & 1) != 0) {
                    found.get(resolver.estate().devices().at(unit).id()).add(family.titles().get(units.turns().share(share).title()).id());
                }
            }
        }
        return found;
    }

    @Test
    void whatTheEditedOneMeetsAndWhatThatMeets() {
        title(EDITED, List.of("rival"), null);
        title("rival", List.of("stronger", "weaker"), null);
        title("stronger", List.of("other"), null);
        title("weaker", List.of(), null);
        title("other", List.of(), null);
        assign("rival-alone", Intent.REQUIRED, "rival", EDITED, "other");
        assign("rival-looks-at-another", Intent.REQUIRED, "stronger", "rival", EDITED, "other");
        assign("rival-and-others-later", Intent.REQUIRED, EDITED, "rival", "stronger", "weaker");
        assign("nobody", Intent.REQUIRED, "stronger", EDITED, "other");
        assign("who-only-offers", Intent.AVAILABLE, "stronger", "rival", EDITED);
        assertThat(mattering()).containsEntry("rival-alone", Set.of(EDITED, "rival")).containsEntry("rival-looks-at-another", Set.of(EDITED, "rival", "stronger"))
                .containsEntry("rival-and-others-later", Set.of(EDITED, "rival", "stronger", "weaker")).containsEntry("nobody", Set.of(EDITED));
    }

    @Test
    void whatNeedsIt() {
        title(EDITED, List.of(), null);
        title("needing", List.of("rival"), null, EDITED);
        title("rival", List.of(), null);
        title("plain", List.of("rival"), null);
        assign("needing", Intent.REQUIRED, "plain", "rival", "needing", EDITED);
        assign("not-needing", Intent.REQUIRED, "plain", "rival", EDITED);
        assign("offered", Intent.AVAILABLE, "needing");
        assertThat(mattering()).containsEntry("needing", Set.of(EDITED, "needing", "plain", "rival")).containsEntry("not-needing", Set.of(EDITED))
                .containsEntry("offered", Set.of());
    }

    @Test
    void whoIsTheFirstThatNeedsWhatNothingStandsAgainst() {
        title(EDITED, List.of(), null, "runtime");
        title("runtime", List.of(), null);
        title("first", List.of(), null, "runtime");
        title("opposed", List.of("rival"), null, "runtime");
        title("rival", List.of(), null);
        title("last", List.of(), null, "runtime");
        assign("certain-before", Intent.REQUIRED, "first", EDITED, "last");
        assign("certain-after", Intent.REQUIRED, EDITED, "first", "last");
        assign("uncertain-before", Intent.REQUIRED, "rival", "opposed", EDITED, "last");
        assign("required-anyway", Intent.REQUIRED, "opposed", "rival", EDITED, "last", "runtime");
        present("uncertain-present", "rival");
        assign("uncertain-present", Intent.REQUIRED, "opposed", EDITED, "last");
        assertThat(mattering()).containsEntry("certain-before", Set.of(EDITED, "first"))
                .containsEntry("uncertain-before", Set.of(EDITED, "last", "opposed", "rival")).containsEntry("required-anyway", Set.of(EDITED))
                .containsEntry("uncertain-present", Set.of(EDITED, "last", "opposed"))
                .hasEntrySatisfying("certain-after", some -> assertThat(some).contains(EDITED, "first"));
    }

    /** Somebody whom nothing stands against is blocked all the same where what is there is too old for him. */
    @Test
    void whoIsTheFirstForWhomItIsNewEnough() {
        title(EDITED, List.of(), null, "runtime");
        titles.add(of("runtime", Version.of("2.0"), List.of(), "ramGiB ge 32"));
        titles.add(of("demanding", ONE, List.of(new Need("runtime", Version.of("2.0"))), null));
        title("last", List.of(), null, "runtime");
        present("too-old", "runtime");
        assign("too-old", Intent.REQUIRED, "demanding", EDITED, "last");
        assign("not-there", Intent.REQUIRED, "demanding", EDITED, "last");
        assertThat(mattering()).hasEntrySatisfying("too-old", some -> assertThat(some).contains(EDITED, "last"));
    }

    private static Title of(String id, Version version, List<Need> needs, @Nullable String fits) {
        return new Title(id, id, Scope.DEVICE, null, List.of(), List.of(new Release(version, ReleaseState.OFFERED, needs, List.of(), List.of(new Variant("all", fits)))));
    }

    @Test
    void whatIsLeftBehindAndWhatTakesItsPlace() {
        title(EDITED, List.of("bare", "taker"), null);
        title("bare", List.of("another", "far"), null);
        title("another", List.of(), null);
        title("far", List.of(), null);
        title("taker", List.of(), null);
        present("bare-is-there", "bare");
        assign("bare-is-there", Intent.REQUIRED, "another", EDITED);
        assign("bare-is-not", Intent.REQUIRED, "another", EDITED);
        present("edited-is-there", EDITED);
        present("edited-is-there", "bare");
        assign("edited-is-there", Intent.REQUIRED, "another", "far", "taker");
        assertThat(mattering()).containsEntry("bare-is-there", Set.of("another", EDITED)).containsEntry("bare-is-not", Set.of(EDITED))
                .containsEntry("edited-is-there", Set.of("taker"));
    }

    @Test
    void whatLooksAtEitherOfTwo() {
        title(EDITED, List.of("one", "other"), null);
        title("one", List.of("looking"), null);
        title("other", List.of("looking"), null);
        title("looking", List.of(), null);
        assign("one", Intent.REQUIRED, EDITED, "one", "looking");
        assign("other", Intent.REQUIRED, EDITED, "other", "looking");
        assertThat(mattering()).containsEntry("one", Set.of(EDITED, "one", "looking")).containsEntry("other", Set.of(EDITED, "other", "looking"));
    }

    /** The older has its turn first, but not before the one of its level that replaces it: what is decided of that is known to it, and it decides after that. */
    @Test
    void whoWaitsOnItsLevel() {
        title(EDITED, List.of("older", "newest"), null);
        title("older", List.of(), null);
        title("newer", List.of("stronger"), "older");
        title("waiting", List.of("third"), null);
        title("newest", List.of(), "waiting");
        title("stronger", List.of(), null);
        title("third", List.of(), null);
        assign("waits", Intent.REQUIRED, "stronger", "older", "newer");
        assignWeakly("waits", EDITED);
        assign("waits-for-what-differs", Intent.REQUIRED, EDITED, "waiting", "newest");
        assignWeakly("waits-for-what-differs", "third");
        assign("does-not", Intent.REQUIRED, "older");
        assignWeakly("does-not", EDITED);
        assertThat(mattering()).containsEntry("waits", Set.of(EDITED, "older", "newer", "stronger")).containsEntry("does-not", Set.of(EDITED, "older"))
                .containsEntry("waits-for-what-differs", Set.of(EDITED, "waiting", "newest", "third"));
    }
}
