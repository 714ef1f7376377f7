package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class OuTreeTest {

    private static Ou ou(String id, @Nullable String parent) {
        return new Ou(id, id, "ou=" + id, parent, false);
    }

    private final OuTree tree = OuTree.of(List.of(ou("bench", "labs"), ou("works", "root"), ou("labs", "root"),
            ou("root", null), ou("annex", "labs")));

    @Test
    void anOuStandsBeforeWhatIsBelowItAndSiblingsStandByName() {
        assertThat(tree.all()).extracting(Ou::id).containsExactly("root", "labs", "annex", "bench", "works");
    }

    @Test
    void anOuWithAllBelowItIsOneRun() {
        int labs = tree.position("labs");
        assertThat(tree.end(labs)).isEqualTo(labs + 3);
        assertThat(tree.isAtOrBelow(tree.position("bench"), labs)).isTrue();
        assertThat(tree.isAtOrBelow(labs, labs)).isTrue();
        assertThat(tree.isAtOrBelow(tree.position("works"), labs)).isFalse();
    }

    @Test
    void depthsCountFromTheRoot() {
        assertThat(tree.depth(tree.position("root"))).isZero();
        assertThat(tree.depth(tree.position("bench"))).isEqualTo(2);
    }

    @Test
    void thePathLeadsFromTheRoot() {
        assertThat(tree.path(tree.position("bench"))).extracting(Ou::id).containsExactly("root", "labs", "bench");
    }

    @Test
    void whatHasNoOuStandsAtTheRoot() {
        assertThat(tree.position(null)).isZero();
    }

    @Test
    void anUnknownOuIsNotFound() {
        assertThat(tree.find("moon")).isNull();
        assertThatThrownBy(() -> tree.position("moon")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void everyProblemIsNamedAndNotOnlyTheFirst() {
        List<Ou> bad = List.of(ou("root", null), ou("other", null), ou("lost", "moon"), ou("root", null),
                new Ou("fenced", "fenced", "ou=fenced", null, true));
        assertThatThrownBy(() -> OuTree.of(bad)).isInstanceOfSatisfying(RefusedException.class,
                e -> assertThat(e.problems()).extracting(Problem::code).containsExactlyInAnyOrder("ou-twice",
                        "unknown-ou", "second-root", "second-root", "second-root", "fenced-root"));
    }

    @Test
    void aTreeHasARoot() {
        assertThatThrownBy(() -> OuTree.of(List.of())).isInstanceOf(RefusedException.class)
                .hasMessageContaining("no root");
    }

    @Test
    void nothingIsBelowItself() {
        List<Ou> cycle = List.of(ou("root", null), ou("a", "b"), ou("b", "a"));
        assertThatThrownBy(() -> OuTree.of(cycle)).isInstanceOf(RefusedException.class)
                .hasMessageContaining("below themselves");
    }
}
