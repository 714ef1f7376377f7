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
    void fencedOusStandFromTheRootDown() {
        OuTree fenced = OuTree.of(List.of(ou("root", null), new Ou("b", "b", "ou=b", "a", true),
                new Ou("a", "a", "ou=a", "root", true)));
        assertThat(fenced.fenced()).containsExactly(1, 2);
    }
}
