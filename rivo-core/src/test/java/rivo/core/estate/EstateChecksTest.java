package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;

class EstateChecksTest {

    private static List<String> places(UnaryOperator<EstateParts> broken) {
        return EstateChecks.problems(broken.apply(Estates.usual().parts())).stream().map(Problem::place).toList();
    }

    private static <T> List<T> and(List<T> list, T one) {
        List<T> more = new ArrayList<>(list);
        more.add(one);
        return more;
    }

    private static Ou ou(String id, String parent, boolean fenced) {
        return new Ou(id, id, "ou=" + id, parent, fenced);
    }

    @Test
    void aSoundEstateHasNoProblems() {
        assertThat(places(p -> p)).isEmpty();
    }

    @Test
    void theTreeHasOneRootThatIsNotFenced() {
        assertThat(places(p -> p.withOus(and(p.ous(), ou("moon", null, false))))).containsExactly("ous[5].parent");
        assertThat(places(p -> p.withOus(List.of()))).contains("ous");
        assertThat(places(p -> p.withOus(List.of(ou("root", null, true), ou("labs", "root", false), ou("bench", "labs",
                false), ou("stores", "labs", false), ou("works", "root", false))))).containsExactly("ous[0].fenced");
    }

    @Test
    void anOuIsNeverBelowItself() {
        List<Ou> circle = List.of(ou("root", null, false), ou("labs", "bench", false), ou("bench", "labs", false),
                ou("stores", "stores", false), ou("works", "root", false));
        assertThat(places(p -> p.withOus(circle))).containsExactlyInAnyOrder("ous[1].parent", "ous[3].parent");
    }

    @Test
    void idsAreUsedOnceAndHaveAForm() {
        assertThat(places(p -> p.withUsers(List.of(new User("u;1", "", "", null, Facts.NONE),
                new User("u", "", "", null, Facts.NONE), new User("u", "", "", null, Facts.NONE)))))
                .containsExactly("users[0].id", "users[2].id");
    }

    @Test
    void whatIsNamedIsDeclared() {
        assertThat(places(p -> p.withDevices(List.of(new Device("d", "", "moon", List.of("nobody"), Facts.NONE, List.of(),
                List.of(new Present("lost", null, null, "a9"))))))).containsExactlyInAnyOrder("devices[0].ou",
                        "devices[0].people[0]", "devices[0].present[0].title", "devices[0].present[0].by");
    }

    private static EstateParts peopled() {
        return Estates.usual().parts().withUsers(List.of(new User("rowena", "", "", null, Facts.NONE)))
                .withDevices(List.of(Device.of("lab-1", "", null, List.of()), Device.of("lab-2", "", null, List.of())));
    }

    private static List<String> problemsOf(Target... members) {
        EstateParts parts = peopled();
        return EstateChecks.problems(parts.withGroups(and(parts.groups(), new Group("g", "", List.of(members))))).stream()
                .map(problem -> problem.code() + " " + problem.place().replace("groups[" + parts.groups().size() + "].", "")).toList();
    }

    @Test
    void membersOfGroupsAreThereAndListedOnce() {
        Target device = Target.device("lab-1");
        Target other = Target.device("lab-2");
        Target user = Target.user("rowena");
        assertThat(problemsOf(device, user, other, Target.group("g"))).isEmpty();
        assertThat(problemsOf(device, user, other, device)).containsExactly("listed-twice members[3]");
        assertThat(problemsOf(user, device, user)).containsExactly("listed-twice members[2]");
        assertThat(problemsOf(Target.group("g"), device, Target.group("g"))).containsExactly("listed-twice members[2]");
        assertThat(problemsOf(device, Target.device("lost"), Target.user(device.id()), Target.group("moon")))
                .containsExactly("unknown-device members[1]", "unknown-user members[2]", "unknown-group members[3]");
        assertThat(problemsOf(Target.user("lost"), Target.user("lost")))
                .containsExactly("unknown-user members[0]", "unknown-user members[1]", "listed-twice members[1]");
    }

    @Test
    void whatIsPresentIsListedOnceForEachUnit() {
        for (int others : new int[] {0, 1, 60}) {
            List<Title> titles = new ArrayList<>(IntStream.range(0, others).mapToObj(i -> title("t" + i, List.of(), List.of(), List.of())).toList());
            titles.add(title("a", List.of(), List.of(), List.of()));
            titles.add(new Title("p", "p", Scope.USER, null, List.of(), List.of()));
            List<Present> present = new ArrayList<>(titles.stream().filter(title -> title.scope() == Scope.DEVICE)
                    .map(title -> new Present(title.id(), null, null, null)).toList());
            present.addAll(List.of(new Present("p", null, "rowena", null), new Present("p", null, "mirko", null)));
            assertThat(twice(titles, present)).as("of %d", others).isEmpty();
            present.addAll(List.of(new Present("a", Version.of("2"), null, null), new Present("p", null, "mirko", null)));
            assertThat(twice(titles, present)).as("of %d", others).containsExactly("listed-twice " + (others + 3), "listed-twice " + (others + 4));
        }
    }

    private static List<String> twice(List<Title> titles, List<Present> present) {
        EstateParts parts = EstateParts.none(Instant.EPOCH).withOus(List.of(ou("root", null, false))).withTitles(titles)
                .withUsers(List.of(new User("rowena", "", "", null, Facts.NONE), new User("mirko", "", "", null, Facts.NONE)))
                .withDevices(List.of(new Device("d", "", null, List.of(), Facts.NONE, List.of(), present)));
        return EstateChecks.problems(parts).stream().map(problem -> problem.code() + " " + problem.place().replaceAll("\\D*\\d+\\D+(\\d+)]", "$1")).toList();
    }

    /** What a group lists is known of each by itself. */
    @Test
    void severalGroupsListTheSame() {
        List<Target> members = List.of(Target.device("lab-1"), Target.user("rowena"));
        assertThat(EstateChecks.problems(peopled().withGroups(List.of(new Group("g", "", members), new Group("h", "", members))).withAssignments(List.of())))
                .isEmpty();
    }

    @Test
    void targetsSuitTheSideThatIsFollowed() {
        assertThat(places(p -> p.withAssignments(List.of(Assignment.of("a1", 1, Subject.title("siltscope"), Intent.REQUIRED,
                List.of(Target.ALL_USERS, Target.ou("labs")))))))
                .containsExactly("assignments[0].include[0]");
    }

    @Test
    void seqsAndSharesAreChecked() {
        Assignment one = Assignment.of("a1", 1, Subject.title("siltscope"), Intent.REQUIRED, List.of(Target.ALL_DEVICES));
        Assignment other = Assignment.of("a2", 1, Subject.title("siltscope"), Intent.REQUIRED, List.of(Target.ALL_DEVICES))
                .withWaves(List.of(Wave.share(60, true), Wave.share(60, false)));
        assertThat(places(p -> p.withAssignments(List.of(one, other)))).containsExactlyInAnyOrder("assignments[1].seq",
                "assignments[1].waves");
    }

    private static Title title(String id, List<String> conflicts, List<Need> needs, List<String> replaces) {
        return new Title(id, id, Scope.DEVICE, null, conflicts, List.of(new Release(Version.of("1"), ReleaseState.OFFERED,
                needs, replaces.stream().map(r -> new Replacement(r, Replacement.Mode.IN_PLACE)).toList(),
                List.of(new Variant("v", null)))));
    }

    @Test
    void relationsMakeSense() {
        assertThat(places(p -> p.withTitles(List.of(title("a", List.of("a"), List.of(new Need("b", null)), List.of("a")),
                title("b", List.of("a"), List.of(), List.of()))))).containsExactlyInAnyOrder("titles[0].conflictsWith[0]",
                        "titles[0].releases[0].replaces[0].title", "titles[0].releases[0].needs[0].title");
        assertThat(places(p -> p.withTitles(List.of(title("a", List.of(), List.of(new Need("b", null)), List.of()),
                title("b", List.of(), List.of(new Need("c", null)), List.of()),
                title("c", List.of(), List.of(new Need("a", null)), List.of()))))).containsExactly(
                        "titles[0].releases[0].needs[0]");
    }

    @Test
    void anEstateIsNotMadeOfBrokenParts() {
        assertThatThrownBy(() -> Estate.of(Estates.usual().parts().withOus(List.of())))
                .isInstanceOf(RefusedException.class).hasMessageContaining("There is no root");
        Estate sound = Estates.usual().estate();
        assertThatThrownBy(() -> sound.withAssignments(List.of(Assignment.of("a", 1, Subject.title("lost"), Intent.REQUIRED,
                List.of(Target.ou("moon")))))).isInstanceOfSatisfying(RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::place)
                                .containsExactly("assignment:a.subject", "assignment:a.include[0]"));
        assertThatThrownBy(() -> sound.withDevice(Device.of("lost", "lost", null, List.of())))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void whatIsPutIntoAnEstateMayNameWhatIsThere() {
        Estate sound = Estate.of(peopled());
        Assignment ofDevices = Assignment.of("a", 901, Subject.title("siltscope"), Intent.REQUIRED,
                List.of(Target.device("lab-1"), Target.ou("labs"), Target.ALL_DEVICES));
        Estate after = sound.withAssignments(List.of(ofDevices));
        assertThat(after.assignments().find("a")).isEqualTo(ofDevices);
        assertThatThrownBy(() -> sound.withAssignments(List.of(Assignment.of("a", 901, Subject.title("siltscope"), Intent.REQUIRED,
                List.of(Target.device("rowena"), Target.group("lab-1")))))).isInstanceOfSatisfying(RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::code).containsExactly("unknown-device", "unknown-group"));
    }

    @Test
    void aDeepChainIsNoTrouble() {
        List<Title> chain = new ArrayList<>();
        for (int i = 0; i < 20_000; i++) {
            chain.add(title("t" + i, List.of(), i == 0 ? List.of() : List.of(new Need("t" + (i - 1), null)), List.of()));
        }
        assertThat(places(p -> p.withTitles(chain))).isEmpty();
    }
}
