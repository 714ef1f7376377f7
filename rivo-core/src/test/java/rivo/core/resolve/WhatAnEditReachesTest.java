package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
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

/** What an edit of many devices reaches at a few of them only by what has been decided in between is found, and nothing else is. */
class WhatAnEditReachesTest {

    private static final int DEVICES = 200;
    private static final String ONE = "d70";
    private static final Target ALL = Target.group("all");
    private static final Target ONLY_ONE = Target.group("one");
    private static final String OTHER = "d140";
    private static final Target ONLY_OTHER = Target.group("other");

    private final List<Title> titles = new ArrayList<>();
    private final List<Assignment> assignments = new ArrayList<>();

    private static Release release(String version, List<Replacement> replaces, String... needs) {
        return new Release(Version.of(version), ReleaseState.OFFERED, Stream.of(needs).map(need -> new Need(need, null)).toList(), replaces,
                List.of(new Variant("all", null)));
    }

    private void title(String id, List<String> conflicts, Release... releases) {
        titles.add(new Title(id, id, Scope.DEVICE, null, conflicts, List.of(releases)));
    }

    /** The one before comes first. */
    private Assignment assign(String title, Intent intent, Target target) {
        Assignment assignment = Assignment.of("a" + assignments.size(), 1 + assignments.size(), Subject.title(title), intent, List.of(target))
                .withPriority(900 - assignments.size());
        assignments.add(assignment);
        return assignment;
    }

    private Map<String, String> reached(Assignment edited, UnaryOperator<Assignment> edit) {
        List<Device> devices = IntStream.range(0, DEVICES).mapToObj(d -> new Device("d" + d, "d" + d, "root", List.of(), Estates.facts("ramGiB", "8"), List.of(), List.of())).toList();
        List<Group> groups = List.of(new Group("all", "All", devices.stream().map(device -> Target.device(device.id())).toList()),
                new Group("one", "One", List.of(Target.device(ONE))), new Group("other", "Other", List.of(Target.device(OTHER))));
        Estate estate = Estate.of(new EstateParts(Estates.AS_OF, List.of(new Ou("root", "Root", "", null, false)), List.of(), devices, groups, List.of(), titles,
                List.of(), assignments, List.of(), List.of()));
        Estate after = estate.withAssignments(List.of(edit.apply(edited)));
        Resolver before = Resolver.of(estate);
        Map<String, String> was = Rows.byTitle(before);
        Map<String, String> said = Differences.said(Rehearsal.of(before, after), after);
        assertThat(said).isEqualTo(Differences.between(was, Rows.byTitle(Resolver.of(after))));
        return said;
    }

    @Test
    void whoIsTheFirstThatStands() {
        title("editor", List.of(), release("1.0", List.of()));
        title("archive", List.of("editor"), release("1.0", List.of(), "library"));
        title("library", List.of("reader"), release("1.0", List.of()));
        title("viewer", List.of("reader"), release("1.0", List.of()));
        title("drawing", List.of(), release("1.0", List.of(), "library"));
        title("mail", List.of(), release("1.0", List.of(), "library"));
        title("reader", List.of(), release("1.0", List.of()));
        title("add-on", List.of(), release("1.0", List.of(), "editor"));
        title("late", List.of("editor"), release("1.0", List.of(), "library"));
        Assignment editor = assign("editor", Intent.REQUIRED, ALL);
        assign("archive", Intent.REQUIRED, ONLY_ONE);
        Stream.of("viewer", "drawing", "mail", "reader").forEach(title -> assign(title, Intent.REQUIRED, ALL));
        assign("add-on", Intent.AVAILABLE, ALL);
        assign("late", Intent.REQUIRED, ONLY_OTHER);

        assertThat(besides("editor", reached(editor, a -> a.withIntent(Intent.UNINSTALL))))
                .containsExactlyInAnyOrder(ONE + " archive", ONE + " library", ONE + " reader", OTHER + " late");
    }

    @Test
    void whatAnotherReleaseReplaces() {
        title("suite", List.of(), release("1.0", List.of()), release("2.0", List.of(new Replacement("reader", Replacement.Mode.IN_PLACE))));
        title("mail", List.of(), release("1.0", List.of(), "suite"));
        title("reader", List.of(), release("1.0", List.of()));
        assign("mail", Intent.REQUIRED, ALL);
        assign("reader", Intent.REQUIRED, ONLY_ONE);
        Assignment suite = assign("suite", Intent.AVAILABLE, ALL).withPin(Version.of("1.0"));
        assignments.set(2, suite);

        assertThat(besides("suite", reached(suite, a -> a.withPin(null)))).containsExactly(ONE + " reader");
    }

    @Test
    void whoImpliesWhatManyNeed() {
        title("runtime", List.of(), release("1.0", List.of()));
        title("mail", List.of(), release("1.0", List.of()));
        title("drawing", List.of("mail"), release("1.0", List.of(), "runtime"));
        title("reader", List.of(), release("1.0", List.of(), "runtime"));
        title("add-on", List.of(), release("1.0", List.of(), "mail"));
        Assignment mail = assign("mail", Intent.REQUIRED, ALL);
        assign("drawing", Intent.REQUIRED, ONLY_ONE);
        assign("reader", Intent.REQUIRED, ALL);
        assign("add-on", Intent.AVAILABLE, ALL);

        assertThat(besides("mail", reached(mail, a -> a.withIntent(Intent.UNINSTALL)))).containsExactlyInAnyOrder(ONE + " drawing", ONE + " runtime");

        Assignment none = mail.withIntent(Intent.UNINSTALL);
        assignments.set(0, none);
        assertThat(besides("mail", reached(none, a -> mail))).as("the other way round").containsExactlyInAnyOrder(ONE + " drawing", ONE + " runtime");
    }

    /** What is reached besides what is edited: the device and the title. */
    private static List<String> besides(String edited, Map<String, String> reached) {
        return reached.keySet().stream().filter(unit -> !unit.endsWith("||" + edited)).map(unit -> unit.replace("||", " ")).toList();
    }
}
