package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/**
 * Where the runtime that an application needs comes before the application in any case: one device for each way in which it does, or does not. The runtime has the first
 * place among all.
 */
class WhatComesAnywayTest {

    private static final List<String> DEVICES = List.of("before", "nobody", "later", "required", "removed", "opposed", "offered", "small", "two-needs", "disputed", "kit-before",
            "kit-after", "not-asked");

    private static Title title(String id, List<String> conflicts, String fits, String... needs) {
        return new Title(id, id, Scope.DEVICE, null, conflicts, List.of(new Release(Version.of("1.0"), ReleaseState.OFFERED,
                Stream.of(needs).map(need -> new Need(need, null)).toList(), List.of(), List.of(new Variant("all", fits)))));
    }

    private static Estate estate() {
        List<Title> titles = List.of(title("a-runtime", List.of(), "ramGiB ge 8"), title("app", List.of(), null, "a-runtime"), title("another", List.of(), null, "a-runtime"),
                title("zother", List.of("rival"), null, "a-runtime"), title("rival", List.of(), null), title("library", List.of("rival"), null),
                title("both", List.of(), null, "a-runtime", "library"), title("drawing", List.of(), null, "library"), title("reader", List.of(), null, "library"));
        List<Device> devices = DEVICES.stream().map(id -> new Device(id, id, "root", List.of(), Estates.facts("ramGiB", id.equals("small") ? "4" : "16"), List.of(), List.of()))
                .toList();
        List<Assignment> assignments = new ArrayList<>();
        assign(assignments, Subject.title("zother"), Intent.REQUIRED, "before", "removed", "opposed", "offered", "small");
        assign(assignments, Subject.title("both"), Intent.REQUIRED, "two-needs");
        assign(assignments, Subject.title("drawing"), Intent.REQUIRED, "disputed");
        assign(assignments, Subject.kit("first"), Intent.REQUIRED, "kit-before");
        assign(assignments, Subject.kit("last"), Intent.REQUIRED, "kit-after");
        assign(assignments, Subject.title("app"), Intent.REQUIRED, "before", "nobody", "later", "required", "removed", "opposed", "offered", "small", "two-needs");
        assign(assignments, Subject.title("app"), Intent.AVAILABLE, "not-asked");
        assign(assignments, Subject.title("reader"), Intent.REQUIRED, "disputed");
        assign(assignments, Subject.title("zother"), Intent.REQUIRED, "later");
        assign(assignments, Subject.title("a-runtime"), Intent.REQUIRED, "required");
        assign(assignments, Subject.title("a-runtime"), Intent.UNINSTALL, "removed");
        assign(assignments, Subject.title("a-runtime"), Intent.AVAILABLE, "offered");
        assign(assignments, Subject.title("rival"), Intent.REQUIRED, "opposed");
        return Estate.of(new EstateParts(Estates.AS_OF, List.of(new Ou("root", "Root", "", null, false)), List.of(), devices, List.of(), List.of(), titles,
                List.of(new Kit("first", "First", List.of("another", "app")), new Kit("last", "Last", List.of("app", "zother"))), assignments, List.of(), List.of()));
    }

    private static void assign(List<Assignment> to, Subject subject, Intent intent, String... devices) {
        to.add(Assignment.of("a" + to.size(), 1 + to.size(), subject, intent, Stream.of(devices).map(Target::device).toList()));
    }

    private static Set<String> comesAnyway(String title, String... edited) {
        Resolver resolver = Resolver.of(estate());
        Family family = resolver.relations().of(title);
        assertThat(family.place("a-runtime")).isZero();
        Set<Integer> places = new HashSet<>();
        Stream.of(edited).forEach(id -> places.add(family.place(id)));
        UnitsAlone.State state = new UnitsAlone.State(new TitleResolution(resolver, resolver.presences()), family);
        Set<String> found = new TreeSet<>();
        new ComesAnyway(state, places).of(family.place(title), Positions.range(0, DEVICES.size())).forEach(unit -> found.add(resolver.estate().devices().at(unit).id()));
        return found;
    }

    @Test
    void whereAnotherAsksForItBeforeOrItIsRequired() {
        assertThat(comesAnyway("app", "app")).as("and where it is not asked for").containsExactly("before", "disputed", "kit-before", "not-asked", "offered", "required");
    }

    @Test
    void notWhereItDependsOnWhatIsEdited() {
        assertThat(comesAnyway("app", "app", "zother")).as("who asks before").containsExactly("disputed", "kit-before", "not-asked", "required");
        assertThat(comesAnyway("app", "app", "rival")).as("what stands against him").containsExactly("disputed", "kit-before", "not-asked", "required");
        assertThat(comesAnyway("app", "app", "a-runtime")).as("itself").containsExactly("disputed", "not-asked");
    }

    @Test
    void notWhatMayBeDisplaced() {
        assertThat(comesAnyway("reader", "reader")).as("though somebody asks before").doesNotContain("disputed").hasSize(DEVICES.size() - 1);
    }
}
