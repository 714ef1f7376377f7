package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.Rows;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.Resolver;

/** A kit in an estate: what is assigned by it speaks for its titles as they are now. */
class KitTest {

    private static Estate withKit(String... titles) {
        Assignment assignment = Assignment.of("a1", 1, Subject.kit("bench"), Intent.REQUIRED, List.of(Target.ou("labs")));
        return Estates.usual().kit("bench", titles).assignment(assignment).estate();
    }

    private static List<String> titlesOn(Estate estate, String device) {
        return Rows.byTitle(Resolver.of(estate)).keySet().stream().filter(k -> k.startsWith(device + "|"))
                .map(k -> k.substring(k.lastIndexOf('|') + 1)).sorted().toList();
    }

    @Test
    void anAssignmentOfAKitSpeaksForEachOfItsTitles() {
        assertThat(titlesOn(withKit("siltscope", "mudview"), "d-labs")).containsExactly("mudview", "siltscope");
    }

    @Test
    void aSubjectHasTheTitlesThatThereAreInTheKitsOrder() {
        Estate estate = withKit("siltscope", "mudview");
        assertThat(estate.titlesOf(Subject.kit("bench"))).extracting(Title::id).containsExactly("siltscope", "mudview");
        assertThat(estate.titlesOf(Subject.title("mudview"))).extracting(Title::id).containsExactly("mudview");
        assertThat(estate.titlesOf(Subject.title("moonware"))).isEmpty();
        assertThat(estate.titlesOf(Subject.kit("moon"))).isEmpty();
    }

    @Test
    void aTitleThatGoesIntoItReachesItsDevices() {
        Estate before = withKit("siltscope");
        Estate after = before.withKit(new Kit("bench", "Bench", List.of("mudview", "siltscope")));
        assertThat(titlesOn(after, "d-labs")).containsExactly("mudview", "siltscope");
        assertThat(titlesOn(before, "d-labs")).as("the estate before is as it was").containsExactly("siltscope");
        assertThat(Rehearsal.of(Resolver.of(before), after).changed()).singleElement()
                .satisfies(d -> assertThat(d.title().id()).isEqualTo("mudview"));
    }

    @Test
    void followingAChangedKitGivesWhatANewResolverGives() {
        Estate before = withKit("siltscope");
        Estate after = before.withKit(new Kit("bench", "Bench", List.of("mudview")));
        assertThat(Rows.byTitle(Resolver.of(before).follow(after))).isEqualTo(Rows.byTitle(Resolver.of(after)));
    }

    @Test
    void anotherOrderChangesNoOutcome() {
        Estate before = withKit("siltscope", "mudview");
        Estate after = before.withKit(new Kit("bench", "Bench", List.of("mudview", "siltscope")));
        assertThat(Rehearsal.of(Resolver.of(before), after).changed()).isEmpty();
    }

    @Test
    void whatMakesNoSenseIsRefused() {
        Estate estate = withKit("siltscope");
        assertThatThrownBy(() -> estate.withKit(new Kit("bench", "Bench", List.of("siltscope", "siltscope"))))
                .isInstanceOf(RefusedException.class).hasMessage("A title is listed twice in the kit; remove one.");
        assertThatThrownBy(() -> estate.withKit(new Kit("bench", "Bench", List.of("moonware"))))
                .isInstanceOf(RefusedException.class).hasMessageContaining("moonware");
    }

    @Test
    void aKitThatSomethingIsAssignedByStays() {
        Estate estate = withKit("siltscope").withKit(new Kit("spare", "Spare", List.of()));
        assertThat(estate.withoutKit("spare").kits()).containsOnlyKeys("bench");
        assertThatThrownBy(() -> estate.withoutKit("bench")).isInstanceOf(RefusedException.class).hasMessageContaining("a1");
        Estate retired = estate.withAssignments(List.of(estate.assignments().all().get(0).retired()));
        assertThatThrownBy(() -> retired.withoutKit("bench")).as("the history speaks of it").isInstanceOf(RefusedException.class);
    }
}
